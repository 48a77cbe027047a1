import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { SiteStore } from '../shared/site/site-store';
import { ShelfStore } from './shelf-store';

describe('ShelfStore', () => {
  const site = signal<{ readonly id: number } | null>({ id: 901 });
  const settled = (): Promise<void> => new Promise((done) => setTimeout(done));

  function shelf(): ShelfStore {
    TestBed.resetTestingModule();
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: SiteStore, useValue: { site } }],
    });
    const store = TestBed.inject(ShelfStore);
    TestBed.tick();
    return store;
  }

  beforeEach(() => {
    site.set({ id: 901 });
    localStorage.removeItem('uv-shelf-901');
    localStorage.removeItem('uv-shelf-902');
  });

  it('keeps colours over a reload, the newest first, each once', () => {
    const first = shelf();
    first.put('#111111', 'one pixel');
    first.put('#222222', 'typed');
    first.put('#111111', 'again');
    expect(shelf().colors()).toEqual([
      { css: '#111111', from: 'again' },
      { css: '#222222', from: 'typed' },
    ]);
  });

  it('has one for each site', async () => {
    const store = shelf();
    store.put('#111111', 'x');
    site.set({ id: 902 });
    TestBed.tick();
    await settled();
    expect(store.colors()).toEqual([]);
    store.put('#333333', 'x');
    site.set({ id: 901 });
    TestBed.tick();
    expect(store.colors().map(({ css }) => css)).toEqual(['#111111']);
  });

  it('takes colours off, and starts empty where what is stored cannot be read', () => {
    const store = shelf();
    store.put('#111111', 'x');
    store.put('#222222', 'x');
    store.take('#222222');
    expect(store.colors().length).toBe(1);
    store.clear();
    expect(shelf().colors()).toEqual([]);
    for (const broken of ['{', '7', '[null, {"css": 3}]']) {
      localStorage.setItem('uv-shelf-901', broken);
      expect(shelf().colors()).withContext(broken).toEqual([]);
    }
  });
});
