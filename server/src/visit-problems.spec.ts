import { PROBLEM_MEDIA_TYPE, STEP_FAILED, type ProblemDocument } from '@upper-veneer/contract';
import { startTestServer, type TestServer } from './testing/test-site.js';

describe('a step of a visit that cannot be done', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  // Source: RFC 9457, 3.1.1: a problem of one's own is told by its type, not by its title, which is for people.
  it('is told by its type', async () => {
    const step = { act: 'press', selector: '.a[', words: '', frame: '', width: null, text: '', keep: null };
    const answer = await fetch(`${server.url}/api/sights/some-sight-1/steps`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(step),
    });
    expect([answer.status, answer.headers.get('content-type')?.split(';')[0]]).toEqual([422, PROBLEM_MEDIA_TYPE]);
    const { type, detail } = (await answer.json()) as ProblemDocument;
    expect(type).toBe(STEP_FAILED);
    expect(detail).toContain('.a[');
  });
});
