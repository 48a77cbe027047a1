import type { Message } from '@upper-veneer/words';
import { startTestServer, type TestServer } from '../testing/test-site.js';

describe('what was left out', () => {
  let server: TestServer;
  beforeEach(async () => {
    server = await startTestServer();
  });
  afterEach(() => server.stop());

  const kept = (reason: Message | string): unknown => {
    server.store.leftOut.replace(server.siteId, [{ path: 'a.js', reason }]);
    return server.store.leftOut.bySite(server.siteId)[0].reason;
  };

  it('is kept by its code, and a text as it is, whatever it looks like', () => {
    const told: Message = { code: 'left-out.larger', values: { size: '10 MB' } };
    expect(kept(told)).toEqual(told);
    for (const text of ['A script', '', '{"told":', '{"told":1}', '{"code":"left-out.script"}'])
      expect(kept(text)).toBe(text);
  });

  it('is kept in words for a version that has no such code any more', () => {
    const told = { code: 'left-out.script' } as const;
    kept(told);
    server.db
      .prepare("UPDATE left_out SET reason = replace(reason, 'left-out.script', 'left-out.of-an-earlier-version')")
      .run();
    expect(server.store.leftOut.bySite(server.siteId)).toEqual([{ path: 'a.js', reason: 'A script' }]);
  });
});
