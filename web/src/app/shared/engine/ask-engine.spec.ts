import { Subject } from 'rxjs';
import { askEngine } from './ask-engine';
import type { Engine } from './engine';

describe('askEngine', () => {
  const told: string[] = [];
  const engine = { remote: {}, tell: (error: Error) => told.push(error.message) } as unknown as Engine;
  const settled = (): Promise<void> => new Promise((done) => setTimeout(done));
  let questions: Subject<string>;
  let answers: Map<string, { done: (value: string) => void; failed: (error: Error) => void }>;
  let shown: string[];
  beforeEach(() => {
    told.length = 0;
    questions = new Subject();
    answers = new Map();
    shown = [];
    questions
      .pipe(
        askEngine(
          engine,
          (question: string) =>
            question === '' ? null : new Promise<string>((done, failed) => answers.set(question, { done, failed })),
          'nothing',
        ),
      )
      .subscribe((answer) => shown.push(answer));
  });

  it('never shows an older answer over a newer one', async () => {
    questions.next('old');
    questions.next('new');
    answers.get('new')?.done('newer');
    await settled();
    answers.get('old')?.done('older');
    await settled();
    expect(shown).toEqual(['newer']);
  });

  it('tells a failure and answers the next question', async () => {
    questions.next('bad');
    answers.get('bad')?.failed(new Error('broken'));
    await settled();
    questions.next('good');
    answers.get('good')?.done('found');
    await settled();
    expect([shown, told]).toEqual([['nothing', 'found'], ['broken']]);
  });

  it('needs no answer where there is no question', () => {
    questions.next('');
    expect(shown).toEqual(['nothing']);
  });
});
