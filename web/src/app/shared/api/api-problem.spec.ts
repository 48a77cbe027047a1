import { HttpErrorResponse } from '@angular/common/http';
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

  it('says when nobody answers, and when the answer is no problem document', () => {
    expect(ApiProblem.from(new HttpErrorResponse({ status: 0 })).isLost).toBe(true);
    expect([
      ApiProblem.from(new Error('no such page')).isLost,
      ApiProblem.from(new Error('no such page')).message,
    ]).toEqual([false, 'What is shown may miss it. no such page']);
    expect(ApiProblem.from(new HttpErrorResponse({ status: 502, error: '<html>' })).message).toContain('502');
  });
});
