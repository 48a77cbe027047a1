import { spoken } from '@upper-veneer/words';
import { describeStep, planProblem, stepProblem, type VisitStep } from './visit-plan.js';

const step = (said: Partial<VisitStep>): VisitStep => ({
  act: 'press',
  selector: '',
  words: 'Next',
  frame: '',
  text: '',
  width: null,
  keep: null,
  ...said,
});

describe('a plan of a visit', () => {
  const steps: readonly (readonly [what: string, step: VisitStep, problem: RegExp | null])[] = [
    ['words alone', step({}), null],
    ['a selector alone', step({ words: '', selector: '#a > [name="x"]' }), null],
    ['nothing to be done to', step({ words: '' }), /needs a selector, or words/],
    // Selectors 4 §3.9: what does not parse is invalid.
    ['what is no selector', step({ selector: 'a >' }), /"a >" is no CSS selector/],
    ['a frame that is no selector', step({ frame: ':::' }), /is no CSS selector/],
    ['a width', step({ act: 'width', words: '', width: 390 }), null],
    ['a width without one', step({ act: 'width', words: '' }), /needs a width/],
    ['scrolling to the end', step({ act: 'scroll', words: '' }), null],
    ['beginning anew', step({ act: 'anew', words: '' }), null],
  ];
  for (const [what, own, problem] of steps)
    it(`${problem ? 'refuses' : 'takes'} ${what}`, () => {
      if (problem) expect(spoken(stepProblem(own) ?? '')).toMatch(problem);
      else expect(spoken(stepProblem(own))).toBe(null);
    });

  const plan = (keep: string | null, ...own: VisitStep[]) => ({
    address: 'http://a.test/',
    width: 1280,
    keep,
    steps: own,
  });
  it('keeps at least one page, each under a name of its own', () => {
    expect(spoken(planProblem(plan('')))).toBe(null);
    expect(spoken(planProblem(plan(null, step({ keep: 'Second step' }))))).toBe(null);
    expect(spoken(planProblem(plan(null, step({}))))).toMatch(/No page is kept/);
    expect(spoken(planProblem(plan('', step({ keep: ' ' }))))).toMatch(/after step 1 needs a name/);
    expect(spoken(planProblem(plan('', step({ keep: 'A' }), step({ keep: 'A' }))))).toMatch(
      /Two pages are kept as "A"/,
    );
    expect(spoken(planProblem(plan('', step({}), step({ words: '' }))))).toMatch(/^Step 2 needs/);
  });

  it('reads as what a visitor does', () => {
    expect(
      spoken(
        [
          step({}),
          step({ act: 'type', words: '', selector: '#a', text: 'Nell' }),
          step({ act: 'choose', text: 'Two', frame: '#f' }),
          step({ act: 'scroll', words: '' }),
          step({ act: 'width', width: 390 }),
        ].map(describeStep),
      ),
    ).toEqual([
      'Press “Next”',
      'Type “Nell” into #a',
      'Choose “Two” in “Next” in the frame #f',
      'Scroll to the end',
      'At 390 px',
    ]);
  });
});
