import { Injector, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Engine } from '../shared/engine/engine';
import { FrameDocument } from '../shared/frame/frame-document';
import { BenchRehearsal, type Scene } from './rehearsal';

describe('when the Bench rehearses', () => {
  const pending = signal(0);
  let rehearsal: BenchRehearsal;
  let begun: number;
  /** A page that holds nothing one is likely to choose, so that nothing is drawn. */
  const scene = (): Scene => {
    begun += 1;
    const drawn = new FrameDocument(document.implementation.createHTMLDocument('empty'), 'head-end');
    const page = { url: '', veneerPlace: 'head-end', frameCss: '', amendments: new Map(), scheme: 'light' } as const;
    return { pageId: 1, width: 1280, page, drawn };
  };
  const wait = (siteId: number): (() => void) => rehearsal.whenQuiet(siteId, scene, TestBed.inject(Injector));

  beforeEach(() => {
    begun = 0;
    pending.set(0);
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: Engine, useValue: { pending } }],
    });
    rehearsal = TestBed.inject(BenchRehearsal);
    jasmine.clock().install();
  });
  afterEach(() => jasmine.clock().uninstall());

  it('waits until nothing is asked', () => {
    pending.set(1);
    wait(1);
    jasmine.clock().tick(60_000);
    expect(begun).toBe(0);
    pending.set(0);
    jasmine.clock().tick(1600);
    expect(begun).toBe(1);
  });

  it('does so once a site', () => {
    for (const site of [1, 1, 2]) {
      const end = wait(site);
      jasmine.clock().tick(60_000);
      end();
    }
    expect(begun).toBe(2);
  });

  it('is given up before its turn, and comes when it is asked for again', () => {
    wait(1)();
    jasmine.clock().tick(60_000);
    expect(begun).toBe(0);
    wait(1);
    jasmine.clock().tick(1600);
    expect(begun).toBe(1);
  });

  // Source: HTML Standard, "page visibility".
  it('waits in a window that nobody looks at', () => {
    const isHidden = spyOnProperty(document, 'hidden').and.returnValue(true);
    wait(1);
    jasmine.clock().tick(60_000);
    expect(begun).toBe(0);
    isHidden.and.returnValue(false);
    jasmine.clock().tick(1600);
    expect(begun).toBe(1);
  });
});
