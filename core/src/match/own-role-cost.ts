import { roleWords } from '../veneer/own-role.js';
import type { RoleName } from '../veneer/palette.js';
import { UNUSUAL } from './fitness.js';
import type { FoundColor } from './found-color.js';
import type { Job } from './job.js';

/** A role made for a job goes before the product's own for it. */
const MADE_FOR_IT = -0.4;

/** Words by which designers call what a role is for (common practice), and whether it is for states alone. */
const USES: readonly { readonly words: RegExp; readonly jobs: readonly Job[]; readonly isState: boolean }[] = [
  { words: /^(?:headings?|titles?|headlines?)$/, jobs: ['heading'], isState: false },
  { words: /^links? hover$|^hovered links?$/, jobs: ['link'], isState: true },
  { words: /^buttons?$/, jobs: ['action'], isState: false },
  { words: /^buttons? hover$/, jobs: ['action'], isState: true },
  { words: /^(?:fields?|inputs?)$/, jobs: ['field'], isState: false },
  { words: /^(?:borders?|edges?)$/, jobs: ['line'], isState: false },
  { words: /^icons?$/, jobs: ['icon'], isState: false },
  { words: /^(?:selections?|highlights?)$/, jobs: ['highlight'], isState: false },
];

/** What it costs a row to take a role of the designer's own: little where its name says that it is for that, else as what is not meant. */
export function ownRoleCost(role: RoleName, { job, states }: Pick<FoundColor, 'job' | 'states'>): number {
  const words = roleWords(role);
  const isOfState = !states.includes('rest');
  const isMade = USES.some((use) => use.words.test(words) && use.jobs.includes(job) && use.isState === isOfState);
  return isMade ? MADE_FOR_IT : UNUSUAL;
}
