import type { Message } from '../message/message.js';
import type { Page } from '../resolve/page.js';
import type { Specificity } from '../selectors/selector.js';
import type { Place, Threshold, ThresholdQuestion } from './threshold.js';

/** A selector that does the job, or why none does. */
export type WrittenSelector =
  | {
      readonly ok: true;
      readonly selector: string;
      readonly specificity: Specificity;
      readonly important: boolean;
      readonly leansOnPlace: boolean;
      readonly bar: Threshold;
    }
  | { readonly ok: false; readonly reason: Message };

export interface SelectorRequest extends Omit<ThresholdQuestion, 'places'> {
  /** The element the designer chose. */
  readonly lead: Place;
  /** Everything the rule is to match, the lead among it. */
  readonly targets: readonly Place[];
  /** Every page of the site: elsewhere the selector must match nothing. */
  readonly pages: readonly Page[];
  /** Whether the targets are all of one kind, so that the tag may stand alone. */
  readonly everywhere: boolean;
  /** Selectors of what "everywhere" gathers, where it is not the lead's kind. */
  readonly kinds?: readonly string[];
  /** The selector that gathers the targets, where they are a group by one. */
  readonly group?: string | null;
}
