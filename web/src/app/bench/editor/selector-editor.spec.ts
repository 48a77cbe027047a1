import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Override, SelectorCheck } from '@upper-veneer/core';
import { Engine } from '../../shared/engine/engine';
import { SelectorEditor } from './selector-editor';

const OVERRIDE: Override = {
  id: 'o1',
  partId: null,
  pageId: 1,
  element: 5,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'literal', css: 'red' },
  selector: '.go',
  important: false,
};
const FINE: Spoken<SelectorCheck> = {
  problem: '',
  specificity: [0, 2, 0],
  elements: 6,
  pages: 3,
  places: [],
  missing: [],
  extra: [],
  losesTo: '',
};

describe('SelectorEditor', () => {
  const asked: string[] = [];
  let answer: Spoken<SelectorCheck> = FINE;

  async function create(override: Override = OVERRIDE) {
    const remote = {
      checkSelector: (_: Override, text: string) => {
        asked.push(text);
        return Promise.resolve(answer);
      },
    };
    TestBed.configureTestingModule({
      providers: [provideZonelessChangeDetection(), { provide: Engine, useValue: { remote } }],
    });
    const fixture = TestBed.createComponent(SelectorEditor);
    fixture.componentRef.setInput('override', override);
    const host = fixture.nativeElement as HTMLElement;
    const settled = async (): Promise<void> => {
      await fixture.whenStable();
      await new Promise((done) => setTimeout(done, 120));
      await fixture.whenStable();
    };
    await settled();
    const written: string[] = [];
    fixture.componentInstance.written.subscribe((text) => written.push(text));
    const type = async (text: string): Promise<void> => {
      const input = host.querySelector('input');
      if (!input) throw new Error('no field');
      input.value = text;
      input.dispatchEvent(new Event('input'));
      await settled();
    };
    return {
      host,
      type,
      written,
      words: () => host.querySelector('[role=status]')?.textContent ?? '',
      use: () => host.querySelector<HTMLButtonElement>('button[type=submit]'),
    };
  }

  beforeEach(() => {
    asked.length = 0;
    answer = FINE;
  });

  it('says reach, specificity and that it wins, and hands over what is typed', async () => {
    const editor = await create();
    expect(editor.words()).toBe('6 on 3 pages · specificity 0·2·0 · ● wins on all it matches');
    expect(editor.use()?.disabled).toBe(true);
    await editor.type('  .form .go ');
    expect(asked.at(-1)).toBe('  .form .go ');
    editor.use()?.click();
    expect(editor.written).toEqual(['.form .go']);
  });

  it('says what it misses, takes in and loses against', async () => {
    answer = {
      ...FINE,
      pages: 1,
      missing: [{ pageId: 1, element: 2 }],
      extra: [
        { pageId: 1, element: 3 },
        { pageId: 1, element: 4 },
      ],
      losesTo: 'theme.css #top .go',
    };
    const editor = await create();
    expect(editor.words()).toContain('6 on 1 page ·');
    expect(editor.words()).toContain(
      '▲ misses 1 of the reach · ◆ takes in 2 more · ▲ loses against theme.css #top .go',
    );
  });

  it('does not hand over what no browser reads', async () => {
    const editor = await create();
    answer = { ...FINE, problem: '"button >" ends in a combinator' };
    await editor.type('button >');
    expect(editor.words()).toBe('▲ "button >" ends in a combinator');
    expect(editor.use()?.disabled).toBe(true);
    expect(editor.host.querySelector('input')?.getAttribute('aria-invalid')).toBe('true');
  });

  it('offers to write it again only where it was written by hand', async () => {
    const own = await create();
    expect(own.host.textContent).not.toContain('Write it for me');
    TestBed.resetTestingModule();
    const byHand = await create({ ...OVERRIDE, isByHand: true });
    [...byHand.host.querySelectorAll('button')].find(({ textContent }) => textContent === 'Write it for me')?.click();
    expect(byHand.written).toEqual(['']);
  });
});
