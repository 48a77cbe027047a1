import { wordsOf } from '@upper-veneer/words';
import type { SeenElement, VisitStep } from '@upper-veneer/core';
import { plainStep, targetOf } from './plain-step';

/** What consent bars call their two answers: common practice, so what is found by them is a guess. */
const ACCEPTS = /\b(?:accept|agree|allow|ok(?:ay)?|got it|yes)\b|zustimm|akzeptier|accepter|j’accepte|aceptar/i;
const REFUSES =
  /\b(?:refuse|reject|decline|deny|only|necessary|needed|essential|without|no)\b|ablehn|refuser|rechazar/i;

/** Buttons that most likely accept and refuse, by their words; `null` where none does. */
export function guessConsent(elements: readonly SeenElement[]): {
  readonly accept: SeenElement | null;
  readonly refuse: SeenElement | null;
} {
  const buttons = elements.filter(({ act, name }) => act === 'press' && name.length <= 40);
  const refuse = buttons.find(({ name }) => REFUSES.test(name)) ?? null;
  const accept = buttons.find((own) => own !== refuse && ACCEPTS.test(own.name)) ?? null;
  return { accept, refuse };
}

/**
 * A page before anybody has answered, after accepting, and after refusing: three pages, the last as a visitor who was never there.
 * @param title what the pages are called after.
 */
export function consentSteps(title: string, accept: SeenElement, refuse: SeenElement): VisitStep[] {
  return [
    plainStep('wait', { ...targetOf(accept), keep: wordsOf('survey.before-consent', { title }) }),
    plainStep('press', { ...targetOf(accept), keep: wordsOf('survey.after-accepting', { title }) }),
    plainStep('anew'),
    plainStep('press', { ...targetOf(refuse), keep: wordsOf('survey.after-refusing', { title }) }),
  ];
}
