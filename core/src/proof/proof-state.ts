import { message, type Message } from '../message/message.js';
import { CENSUS_STATES, allInState, type CensusState } from '../census/census-states.js';
import type { ElementNode, PageDocument } from '../dom/tree.js';
import { pointerStates } from '../elsewhere/pointer-states.js';
import { stateTold } from '../grid/rows.js';
import type { StateMap } from '../selectors/match-context.js';

/** A state by itself, or hovered, focused and refused at once, where these can come together. */
export type ProofState = CensusState | 'together';

export const PROOF_STATES: readonly ProofState[] = [...CENSUS_STATES, 'together'];

/** Names that pseudo-classes of each have when they come together. */
export const TOGETHER = ['hover', 'focus', 'invalid'] as const satisfies readonly CensusState[];

/** What a state that is looked at is called. */
export function proofStateTold(state: ProofState): Message {
  return state === 'together' ? message('state.together') : stateTold(state);
}

/** The one of several states at once that leads: where only one can be shown, and be overridden. */
export function leadingState(state: ProofState): CensusState {
  return state === 'together' ? 'focus' : state;
}

/** A page with every element in a state, or in several at once. */
export function wholeInState(document: PageDocument, state: ProofState): StateMap {
  return merged(singlesOf(state).map((one) => allInState(document, one)));
}

/** A page with one element in a state, or in several at once, as a pointer and the keyboard bring it about. */
export function oneInState(document: PageDocument, element: ElementNode, state: ProofState): StateMap {
  return merged(singlesOf(state).map((one) => pointerStates(document, element, one)));
}

function singlesOf(state: ProofState): readonly CensusState[] {
  return state === 'together' ? TOGETHER : [state];
}

function merged(maps: readonly StateMap[]): StateMap {
  if (maps.length === 1) return maps[0];
  const states = new Map<ElementNode, ReadonlySet<string>>();
  for (const map of maps)
    for (const [element, names] of map) states.set(element, new Set([...(states.get(element) ?? []), ...names]));
  return states;
}
