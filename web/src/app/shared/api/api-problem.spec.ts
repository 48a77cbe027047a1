import { HttpErrorResponse } from '@angular/common/http';
import { LANGUAGES, speak } from '@upper-veneer/words';
import { ApiProblem } from './api-problem';

describe('ApiProblem', () => {
  // Source: RFC 9457 §3.1, members of a problem document.
  it('reads a problem document, parsed or as text', () => {
    const document = {
      type: 'about:blank',
      title: 'Not stored',
      status: 422,
      detail: 'put.0.selector ends',
      errors: [{ field: 'put.0.selector', reason: 'ends' }],
    };
    for (const error of [document, JSON.stringify(document)]) {
      const problem = ApiProblem.from(new HttpErrorResponse({ status: 422, error }));
      expect([problem.title, problem.message, problem.errors.length, problem.isLost]).toEqual([
        'Not stored',
        'put.0.selector ends',
        1,
        false,
      ]);
    }
  });

  // Source: RFC 9457 §3.2, members that extend a problem document; §3.1.4, its words are for people.
  it('says what is told by code in the language that is spoken, and the words given where the code is not known', () => {
    const words = { type: 'about:blank', title: 'Not found', status: 404, detail: 'There is no site 7' };
    speak({ ...LANGUAGES[0], words: { ...LANGUAGES[0].words, 'refusal.no-site': 'Keine Site {site}' } });
    const said = (code: string): ApiProblem =>
      ApiProblem.of({
        ...words,
        told: {
          title: { code: 'refused.not-found' },
          detail: { code: code as 'refusal.no-site', values: { site: 7 } },
        },
      });
    expect([said('refusal.no-site').title, said('refusal.no-site').message]).toEqual(['Not found', 'Keine Site 7']);
    expect(said('refusal.of-a-later-server').message).toBe('There is no site 7');
    speak(LANGUAGES[0]);
  });

  it('says when nobody answers, and when the answer is no problem document', () => {
    expect(ApiProblem.from(new HttpErrorResponse({ status: 0 })).isLost).toBe(true);
    expect([
      ApiProblem.from(new Error('no such page')).isLost,
      ApiProblem.from(new Error('no such page')).message,
    ]).toEqual([false, 'What is shown may miss it. no such page']);
    expect(ApiProblem.from(new HttpErrorResponse({ status: 502, error: '<html>' })).message).toContain('502');
  });
});
