import type { GridRowName, OverrideState } from '@upper-veneer/core';

/** Words for states: "active" is pressed in CSS and the current page elsewhere, so it is always said. */
export const STATE_WORDS: Readonly<Record<OverrideState, string>> = { rest: 'Rest', visited: 'Visited', hover: 'Hover', focus: 'Focus', active: 'Pressed' };

export const ROW_WORDS: Readonly<Record<GridRowName, string>> = { text: 'Text', fill: 'Fill', edge: 'Edge' };

/** Label of a change, for undo: `Hover fill of Hold my place: Willow, 12 darker`. */
export function describeChange(state: OverrideState, row: GridRowName, name: string, value: string): string {
  const shortName = name.length > 80 ? `${name.slice(0, 77)}…` : name;
  return `${STATE_WORDS[state]} ${ROW_WORDS[row].toLowerCase()} of ${shortName}: ${value}`.slice(0, 200);
}
