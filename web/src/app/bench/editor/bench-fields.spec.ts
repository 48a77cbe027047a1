import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection, type Type } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { ROW_PROPERTIES, type Companion, type OverrideValue, type Palette, type RowProperty } from '@upper-veneer/core';
import { providePrimeNG } from 'primeng/config';
import { PeelLine } from '../../shared/frame/peel-line';
import { CompanionsList } from '../verdict/companions-list';
import { CompositeEditor } from './composite-editor';
import { HoldButton } from '../../shared/ui/hold-button';
import { MeasureField } from './measure-field';
import { rangesFor, readWidth, turnedWidth } from '../page/page-widths';
import { WidthBar } from '../page/width-bar';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Ink', css: '#1d2b2a' },
  ],
  roles: [
    { role: 'accent', swatchId: 1, shade: 0 },
    { role: 'ink', swatchId: 2, shade: 0 },
  ],
};
const propertyOf = (row: keyof typeof ROW_PROPERTIES, property: string): RowProperty =>
  ROW_PROPERTIES[row].find((entry) => entry.property === property) as RowProperty;

async function create<T>(type: Type<T>, inputs: Readonly<Record<string, unknown>>) {
  TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection(), providePrimeNG({})] });
  const fixture = TestBed.createComponent(type);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  const host = fixture.nativeElement as HTMLElement;
  const type_ = async (selector: string, text: string): Promise<HTMLInputElement> => {
    const input = host.querySelector<HTMLInputElement>(selector);
    if (!input) throw new Error(`No ${selector}`);
    input.value = text;
    input.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    return input;
  };
  return { fixture, host, type: type_, part: fixture.componentInstance };
}

describe('MeasureField', () => {
  const create_ = (property: RowProperty, shown: string, families: readonly string[] = []) =>
    create(MeasureField, { property, shown, palette: PALETTE, families });

  it('takes a measure with Enter, and says what it cannot take while it is typed', async () => {
    const { host, type, fixture, part } = await create_(propertyOf('radius', 'border-radius'), '6px');
    const picked: string[] = [];
    part.picked.subscribe((value) => picked.push(value));
    await type('input', 'round');
    expect(host.querySelector('.problem')?.textContent).toContain('border-radius takes no "round"');
    host.querySelector('form')?.dispatchEvent(new Event('submit'));
    await type('input', '4px 2px');
    expect(host.querySelector('.problem')).toBeNull();
    host.querySelector('form')?.dispatchEvent(new Event('submit'));
    await fixture.whenStable();
    expect(picked).toEqual(['4px 2px']);
  });

  it('moves the number with the arrow keys, ten at a time with Shift, a tenth for what is a share', async () => {
    const { host, fixture } = await create_(propertyOf('radius', 'border-radius'), '6px');
    const press = async (key: string, shiftKey = false): Promise<string> => {
      host.querySelector('input')?.dispatchEvent(new KeyboardEvent('keydown', { key, shiftKey }));
      await fixture.whenStable();
      return host.querySelector('input')?.value ?? '';
    };
    expect([await press('ArrowUp'), await press('ArrowUp', true), await press('ArrowDown')]).toEqual([
      '7px',
      '17px',
      '16px',
    ]);
    fixture.componentRef.setInput('property', propertyOf('opacity', 'opacity'));
    fixture.componentRef.setInput('shown', '0.5');
    await fixture.whenStable();
    expect(await press('ArrowUp')).toBe('0.6');
  });

  it('offers the keywords, and the faces of the site before those that ship', async () => {
    const line = await create_(propertyOf('underline', 'text-decoration-line'), 'none');
    expect([...line.host.querySelectorAll('.choices button')].map((button) => button.textContent)).toEqual([
      'none',
      'underline',
      'line-through',
      'overline',
    ]);
    expect(line.host.querySelector('.current')?.textContent).toBe('none');
    TestBed.resetTestingModule();
    const font = await create_(propertyOf('type', 'font-family'), 'serif', ['Georgia, serif']);
    expect(font.host.querySelector('.choices button')?.textContent).toBe('Georgia, serif');
  });
});

describe('CompositeEditor', () => {
  const create_ = async (property: RowProperty, shown: string, current: OverrideValue | null = null) => {
    const made = await create(CompositeEditor, { property, shown, current, palette: PALETTE });
    const picked: OverrideValue[] = [];
    made.part.picked.subscribe((value) => picked.push(value));
    return { ...made, picked };
  };

  it('lifts the stops out, bound to the palette where it has them, and recolours one at a time', async () => {
    const { host, fixture, picked } = await create_(
      propertyOf('image', 'background-image'),
      'linear-gradient(rgb(180, 88, 42), rgb(1, 2, 3) 60%)',
    );
    const chips = [...host.querySelectorAll<HTMLButtonElement>('.chips button')];
    expect(chips.map((chip) => chip.textContent?.trim())).toEqual(['Accent', 'rgb(1, 2, 3)']);
    chips[1].click();
    await fixture.whenStable();
    host.querySelector<HTMLButtonElement>('.swatch[aria-label="Ink"]')?.click();
    expect(picked).toEqual([
      {
        kind: 'composite',
        css: 'linear-gradient({0}, {1} 60%)',
        colors: [
          { kind: 'role', role: 'accent', shade: 0 },
          { kind: 'swatch', swatchId: 2, shade: 0 },
        ],
      },
    ]);
  });

  it('lays an overlay over the picture that is there, and clears', async () => {
    const { host, picked } = await create_(propertyOf('image', 'background-image'), 'url("http://x.test/a.svg")');
    const press = (text: string): void =>
      [...host.querySelectorAll<HTMLButtonElement>('.acts button')]
        .find((button) => button.textContent?.trim() === text)
        ?.click();
    press('Overlay over the picture');
    press('Clear it');
    expect(picked[0]).toEqual({
      kind: 'composite',
      css: 'linear-gradient(color-mix(in srgb, {0} 55%, transparent), color-mix(in srgb, {0} 55%, transparent)), url("http://x.test/a.svg")',
      colors: [{ kind: 'role', role: 'ink', shade: 0 }],
    });
    expect(picked[1]).toEqual({ kind: 'literal', css: 'none' });
  });

  it('takes its text, colours typed into it and all, and refuses what is no value', async () => {
    const { host, type, picked } = await create_(propertyOf('shadow', 'box-shadow'), 'none');
    await type('form input', '0 2px 4px #b4582a');
    host.querySelector('form')?.dispatchEvent(new Event('submit'));
    expect(picked).toEqual([
      { kind: 'composite', css: '0 2px 4px {0}', colors: [{ kind: 'role', role: 'accent', shade: 0 }] },
    ]);
    await type('form input', 'soft');
    expect(host.querySelector('.problem')?.textContent).toContain('box-shadow takes no');
  });
});

describe('CompanionsList', () => {
  const companion = (name: string, kind: Spoken<Companion>['kind'], element: number): Spoken<Companion> => ({
    kind,
    name,
    state: 'rest',
    stateWords: 'Rest',
    count: 2,
    ratio: 1.84,
    wanted: 4.5,
    proposed: { kind: 'role', role: 'ink', shade: 0 },
    proposedWords: 'Ink',
    proposedRatio: 9.17,
    wish: {
      pageId: 1,
      element,
      pseudo: '',
      reach: 'alike',
      state: 'rest',
      property: 'color',
      value: { kind: 'role', role: 'ink', shade: 0 },
      width: 1280,
    },
  });

  it('says what fails and what is proposed, and takes all, some or none', async () => {
    const { host, fixture, part } = await create(CompanionsList, {
      companions: [companion('Head', 'heading', 3), companion('Words', 'text', 4), companion('Glow', 'shadow', 4)],
    });
    const taken: string[][] = [];
    part.taken.subscribe((list) => taken.push(list.map(({ name }) => name)));
    expect(host.querySelector('li')?.textContent?.replace(/\s+/g, ' ').trim()).toBe(
      'heading · Head and 1 alike1.8 : 1, needs 4.5→ Ink 9.1 : 1',
    );
    host.querySelector<HTMLButtonElement>('header button')?.click();
    host.querySelectorAll<HTMLInputElement>('input')[0].click();
    await fixture.whenStable();
    host.querySelector<HTMLButtonElement>('header button')?.click();
    host.querySelectorAll<HTMLInputElement>('input')[1].click();
    await fixture.whenStable();
    expect(host.querySelector<HTMLButtonElement>('header button')?.disabled).toBeTrue();
    expect(taken).toEqual([['Head', 'Words'], ['Words']]);
  });
});

describe('the width of the page', () => {
  it('is one of the usual, turned, typed within bounds, or a breakpoint', async () => {
    expect([1280, 820, 390, 844, 1000].map(turnedWidth)).toEqual([800, 1180, 844, 390, 1000]);
    expect(['1024', '10', '99999', 'wide'].map(readWidth)).toEqual([1024, 240, 2560, null]);
    expect(rangesFor([768]).map(({ label }) => label)).toEqual(['every width', 'from 768 px', 'up to 767 px']);
    const { host, type, part } = await create(WidthBar, { width: 1280, breakpoints: [600, 768] });
    const chosen: number[] = [];
    part.chosen.subscribe((width) => chosen.push(width));
    const ruler = host.querySelector<HTMLElement>('[role=slider]');
    for (const key of ['ArrowRight', 'ArrowLeft', 'Home'])
      ruler?.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    host.querySelector<HTMLButtonElement>('.turn')?.click();
    await type('form input', '1024');
    host.querySelector('form')?.dispatchEvent(new Event('submit'));
    expect(chosen).toEqual([768, 600, 800, 1024]);
    expect([ruler?.getAttribute('aria-valuenow'), ruler?.getAttribute('aria-valuetext')]).toEqual([
      '1280',
      '1280 px; rules change at 600, 768 px',
    ]);
  });
});

describe('HoldButton and PeelLine', () => {
  it('a flash lasts as long as it is held, by pointer or by key', async () => {
    const { host, part } = await create(HoldButton, { label: 'Flash x' });
    const told: string[] = [];
    part.held.subscribe(() => told.push('held'));
    part.released.subscribe(() => told.push('let go'));
    const button = host.querySelector('button');
    button?.dispatchEvent(new PointerEvent('pointerdown'));
    button?.dispatchEvent(new PointerEvent('pointerup'));
    button?.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space' }));
    button?.dispatchEvent(new KeyboardEvent('keydown', { key: ' ', code: 'Space', repeat: true }));
    button?.dispatchEvent(new KeyboardEvent('keyup', { key: ' ' }));
    expect(told).toEqual(['held', 'let go', 'held', 'let go']);
  });

  it('the line moves by keys and stays within the page', async () => {
    const { host, part } = await create(PeelLine, { at: 0.5 });
    const moved: number[] = [];
    part.moved.subscribe((at) => moved.push(Math.round(100 * at)));
    for (const key of ['ArrowRight', 'ArrowLeft', 'Home', 'End', 'x'])
      host.querySelector('button')?.dispatchEvent(new KeyboardEvent('keydown', { key }));
    expect(moved).toEqual([55, 45, 0, 100]);
    expect(host.querySelector('[role=slider]')?.getAttribute('aria-valuenow')).toBe('50');
  });
});
