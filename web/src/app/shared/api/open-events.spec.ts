import { openEvents, type LiveEvent } from './open-events';

describe('openEvents', () => {
  const sources: FakeSource[] = [];
  class FakeSource extends EventTarget {
    static readonly CLOSED = 2;
    readyState = 1;
    onerror: (() => void) | null = null;
    constructor(readonly url: string) {
      super();
      sources.push(this);
    }
    close(): void {
      this.readyState = FakeSource.CLOSED;
    }
  }
  const original = window.EventSource;
  beforeEach(() => {
    sources.length = 0;
    (window as { EventSource: unknown }).EventSource = FakeSource;
    jasmine.clock().install();
  });
  afterEach(() => {
    jasmine.clock().uninstall();
    (window as { EventSource: unknown }).EventSource = original;
  });
  const fail = (source: FakeSource, readyState: number): void => {
    source.readyState = readyState;
    source.onerror?.();
  };

  it('connects anew after an answer that was no stream, and not once it is closed', () => {
    const heard: LiveEvent[] = [];
    const close = openEvents((event) => heard.push(event));
    // A source that is connecting again by itself is left to it: HTML §9.2.3.
    fail(sources[0], 0);
    jasmine.clock().tick(10_000);
    expect(sources.length).toBe(1);
    fail(sources[0], FakeSource.CLOSED);
    jasmine.clock().tick(2000);
    expect(sources.map(({ url }) => url)).toEqual(['/api/events', '/api/events']);
    sources[1].dispatchEvent(new MessageEvent('draft', { data: '{"siteId":3,"version":7}' }));
    expect(heard).toEqual([{ kind: 'draft', siteId: 3, version: 7 }]);
    fail(sources[1], FakeSource.CLOSED);
    close();
    jasmine.clock().tick(10_000);
    expect(sources.length).toBe(2);
  });
});
