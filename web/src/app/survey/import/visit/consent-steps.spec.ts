import { planProblem, type SeenElement } from '@upper-veneer/core';
import { consentSteps, guessConsent } from './consent-steps';

const seen = (name: string, act: SeenElement['act'] = 'press'): SeenElement => ({
  box: { x: 0, y: 0, width: 10, height: 10 },
  selector: 'button',
  words: name,
  name,
  act,
  choices: [],
});

describe('consent as three pages', () => {
  // Pairs of words as consent bars have them: common practice.
  const bars: readonly (readonly [buttons: readonly string[], accept: string, refuse: string])[] = [
    [['Settings', 'Accept', 'Only needed'], 'Accept', 'Only needed'],
    [['Reject all', 'Accept all'], 'Accept all', 'Reject all'],
    [['OK', 'Continue without agreeing'], 'OK', 'Continue without agreeing'],
    [['Ablehnen', 'Alle akzeptieren'], 'Alle akzeptieren', 'Ablehnen'],
    [['Refuser', 'Tout accepter'], 'Tout accepter', 'Refuser'],
  ];
  for (const [buttons, accept, refuse] of bars)
    it(`guesses ${accept} and ${refuse}`, () => {
      const found = guessConsent([seen('Notes', 'wait'), ...buttons.map((name) => seen(name))]);
      expect([found.accept?.name, found.refuse?.name]).toEqual([accept, refuse]);
    });

  it('guesses nothing where nothing says so', () => {
    expect(guessConsent([seen('Book a canoe'), seen('Accept', 'wait')])).toEqual({ accept: null, refuse: null });
  });

  it('refuses as a visitor who was never there, and keeps each page under a name', () => {
    const steps = consentSteps('Home', seen('Accept'), seen('Refuse'));
    expect(planProblem({ address: 'http://a.test/', width: 1280, keep: null, steps })).toBe(null);
    expect(steps.map(({ act, words, keep }) => [act, words, keep])).toEqual([
      ['wait', 'Accept', 'Home, before consent'],
      ['press', 'Accept', 'Home, after accepting'],
      ['anew', '', null],
      ['press', 'Refuse', 'Home, after refusing'],
    ]);
  });
});
