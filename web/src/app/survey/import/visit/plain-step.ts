import type { SeenElement, VisitAct, VisitStep } from '@upper-veneer/core';

/** A step with nothing in it but its act and what is said. */
export function plainStep(act: VisitAct, said: Partial<VisitStep> = {}): VisitStep {
  return { act, selector: '', words: '', frame: '', text: '', width: null, keep: null, ...said };
}

/** By what a step finds an element again. */
export function targetOf({
  selector,
  words,
  frame = '',
}: SeenElement): Pick<VisitStep, 'selector' | 'words' | 'frame'> {
  return { selector, words, frame };
}
