import { of, throwError } from 'rxjs';
import { PreloadViews } from './preload-views';

describe('views loaded before they are opened', () => {
  const asked: (() => void)[] = [];
  const settle = async (): Promise<void> => {
    for (let turn = 0; turn < 10; turn += 1) await Promise.resolve();
  };
  /** As browsers call back where nothing else is to be done (requestIdleCallback, W3C). */
  const idle = async (): Promise<void> => {
    asked.shift()?.();
    await settle();
  };

  beforeEach(() => {
    asked.length = 0;
    jasmine.clock().install();
    spyOn(window, 'requestIdleCallback').and.callFake((callback) => asked.push(callback as () => void));
  });
  afterEach(() => jasmine.clock().uninstall());

  it('come after what is wanted at once, each when nothing is done', async () => {
    const views = new PreloadViews();
    const loaded: string[] = [];
    for (const path of ['survey', 'palette'])
      views
        .preload({ path }, () => {
          loaded.push(path);
          return of(null);
        })
        .subscribe();
    jasmine.clock().tick(4900);
    await settle();
    expect([asked.length, loaded]).toEqual([0, []]);
    jasmine.clock().tick(200);
    await settle();
    expect([asked.length, loaded]).toEqual([1, []]);
    await idle();
    expect(loaded).toEqual(['survey']);
    await idle();
    expect(loaded).toEqual(['survey', 'palette']);
  });

  // Source: the router gives loading ahead up for good where a strategy fails (Angular, `RouterPreloader`).
  it('fail without a word, and the next comes', async () => {
    const views = new PreloadViews();
    const errors: unknown[] = [];
    const loaded: string[] = [];
    views.preload({}, () => throwError(() => new Error('lost'))).subscribe({ error: (error) => errors.push(error) });
    views
      .preload({}, () => {
        loaded.push('next');
        return of(null);
      })
      .subscribe();
    jasmine.clock().tick(5100);
    await settle();
    await idle();
    await idle();
    expect([errors, loaded]).toEqual([[], ['next']]);
  });
});
