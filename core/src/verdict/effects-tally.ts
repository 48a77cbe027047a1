import type { Message } from '../message/message.js';
import type { OverrideState, Spot } from '../veneer/override.js';
import type { StateLook } from './state-looks.js';
import { type Legibility } from './legibility.js';

/** What is gathered over all pages. */
export interface EffectsTally {
  readonly missed: Map<string, Spot>;
  readonly spill: Map<string, Spot>;
  /** What changes on the elements it spills to, by its key. */
  readonly changed: Map<string, Message>;
  readonly states: Set<OverrideState>;
  readonly looks: StateLook[];
  readonly legibility: Legibility;
  readonly silenced: Map<string, { words: Message; before: string; spots: Map<string, Spot> }>;
  reached: number;
  compared: number;
  elements: number;
}
