import { STRATEGIES, type Lighting, type Strategy } from '@upper-veneer/core';
import type { Given } from './command.js';
import { matchSite, type Matched } from './match-site.js';
import { oneOf } from './one-of.js';
import { readPalette } from './read-palette.js';
import { readSite } from './read-site.js';
import { UsageProblem } from './usage-problem.js';

/** Proposes for a saved site as the options ask. @throws {UsageProblem} what they do not say, or say wrongly. */
export async function matchAsAsked(path: string, given: Given): Promise<Matched> {
  if (given.palette === undefined) throw new UsageProblem('it needs --palette FILE; see --help');
  const strategy = oneOf('strategy', given.strategy ?? 'blend', STRATEGIES) as Strategy;
  const lighting = oneOf('lighting', given.lighting ?? 'light', ['light', 'inverted']) as Lighting;
  const [saved, palette] = [await readSite(path), await readPalette(given.palette, lighting)];
  return matchSite({ saved, palette, scope: given.scope ?? null, strategy });
}
