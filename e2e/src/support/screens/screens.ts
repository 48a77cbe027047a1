import { BENCH_TO_PROOF } from './bench-to-proof.js';
import { SHEET_TO_TRIAL } from './sheet-to-trial.js';
import { SURVEY_AND_PALETTE } from './survey-and-palette.js';
import type { Screen } from './screen.js';

/** Walks over the screens, each from the demo as it arrives, in an order that leads from one screen to the next. */
export const WALKS: readonly (readonly Screen[])[] = [BENCH_TO_PROOF, SURVEY_AND_PALETTE, SHEET_TO_TRIAL];
/** Every screen and dialog of the product; one walk leads on to the next. */
export const SCREENS: readonly Screen[] = WALKS.flat();
