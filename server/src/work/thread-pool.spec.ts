import { createThreadPool } from './thread-pool.js';
import type { WorkProgress } from './progress.js';
import { WorkError, type WorkPool } from './work-pool.js';
import type { TidyInput } from './tidy-sheet.js';

/** Overrides enough that tidying takes a while. */
function longTidy(count: number): TidyInput {
  const html = `<!doctype html><body>${Array.from({ length: 400 }, (_, i) => `<p class="a${i % 20} b${i % 7}"><b>t</b></p>`).join('')}`;
  return {
    source: {
      pages: [{ id: 1, name: 'A', path: 'a.html', html }],
      stylesheets: {},
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    },
    overrides: Array.from({ length: count }, (_, i) => ({
      id: `o${i}`,
      partId: null,
      pageId: 1,
      element: 2,
      pseudo: '',
      reach: 'alike',
      state: 'rest',
      property: 'color',
      value: { kind: 'literal', css: `rgb(${i} 0 0)` },
      selector: `.a${i % 20}.b${i % 7} b:nth-child(${1 + (i % 3)})`,
      important: false,
    })),
    ownCss: [],
    palette: { swatches: [], roles: [] },
  };
}

describe('the pool of threads', () => {
  let pool: WorkPool;
  beforeEach(() => {
    pool = createThreadPool();
  });
  afterEach(() => pool.close());
  const faultOf = (work: Promise<unknown>): Promise<string> =>
    work.then(
      () => 'none',
      (error: unknown) => (error instanceof WorkError ? error.fault : String(error)),
    );

  it('gives a result, with progress on the way', async () => {
    const heard: WorkProgress[] = [];
    const css = await pool.run('tidy', longTidy(30), { onProgress: (progress) => heard.push(progress) });
    expect(css).toContain('color: rgb(27 0 0)');
    expect(heard[0]).toEqual(jasmine.objectContaining({ stage: { code: 'stage.tidying' } }));
  });

  it('stops at once when told, and works on', async () => {
    const ending = new AbortController();
    const work = faultOf(pool.run('tidy', longTidy(60), { signal: ending.signal, onProgress: () => ending.abort() }));
    expect(await work).toBe('stopped');
    expect(await pool.run('frame-sheet', 'a:hover { color: red }')).toContain('data-uv-hover');
  });

  it('does equal jobs once, until the last who waits has gone', async () => {
    const [first, second] = [new AbortController(), new AbortController()];
    let told = 0;
    const input = longTidy(40);
    const works = [first, second].map(({ signal }) =>
      pool.run('tidy', input, { key: 'same', signal, onProgress: () => (told += 1) }),
    );
    const gone = faultOf(works[0]);
    first.abort();
    expect(await gone).toBe('stopped');
    expect(await works[1]).toContain('color: rgb(39 0 0)');
    expect(told).toBeGreaterThan(0);
  });

  it('does the jobs of a lane one after another', async () => {
    const order: string[] = [];
    await Promise.all([
      pool.run('tidy', longTidy(240), { lane: 'a' }).then(() => order.push('long')),
      pool.run('frame-sheet', 'a {}', { lane: 'a' }).then(() => order.push('short after it')),
      pool.run('frame-sheet', 'b {}').then(() => order.push('another lane')),
    ]);
    expect(order).toEqual(['another lane', 'long', 'short after it']);
  });

  it('does short jobs beside long ones that fill it', async () => {
    const ending = new AbortController();
    const long = [1, 2, 3, 4].map(() => faultOf(pool.run('tidy', longTidy(60), { signal: ending.signal })));
    expect(await Promise.race([pool.run('frame-sheet', 'a:hover {}'), ...long])).toContain('data-uv-hover');
    ending.abort();
    expect(await Promise.all(long)).toEqual(['stopped', 'stopped', 'stopped', 'stopped']);
  });

  it('says why a job failed', async () => {
    const broken = { ...longTidy(1), source: null } as unknown as TidyInput;
    expect(await faultOf(pool.run('tidy', broken))).toBe('failed');
  });
});
