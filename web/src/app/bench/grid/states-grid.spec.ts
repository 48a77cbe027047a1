import type { Spoken } from '@upper-veneer/words';
import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { GridCell, Inspection } from '@upper-veneer/core';
import type { CellChoice } from '../store/bench-selection';
import { StatesGrid } from './states-grid';

function cell(some: Partial<Spoken<GridCell>>): Spoken<GridCell> {
  return {
    state: 'rest',
    longhands: ['color'],
    css: 'rgb(1, 2, 3)',
    colors: ['#010203'],
    hex: '#010203',
    isOwn: true,
    isOverride: false,
    isCovered: false,
    closed: '',
    ...some,
  };
}

const INSPECTION = {
  states: ['rest', 'hover'],
  quietStates: [],
  otherCarriers: [],
  carrier: null,
  grid: [
    { row: 'text', cells: [cell({}), cell({ state: 'hover', isOwn: false })] },
    { row: 'fill', cells: [cell({ css: null, hex: null }), cell({ state: 'hover', isOverride: true })] },
    { row: 'edge', cells: [cell({ css: null, hex: null }), cell({ state: 'hover', css: null, hex: null })] },
  ],
} as unknown as Spoken<Inspection>;

describe('StatesGrid', () => {
  async function create() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(StatesGrid);
    fixture.componentRef.setInput('inspection', INSPECTION);
    fixture.componentRef.setInput('choice', { row: 'text', state: 'rest' } satisfies CellChoice);
    const chosen: CellChoice[] = [];
    fixture.componentInstance.chosen.subscribe((choice) => chosen.push(choice));
    await fixture.whenStable();
    const host = fixture.nativeElement as HTMLElement;
    return { fixture, host, chosen, buttons: [...host.querySelectorAll<HTMLButtonElement>('td button')] };
  }

  it('draws own, fallen-through, empty and overridden cells apart', async () => {
    const { buttons } = await create();
    expect(
      buttons.map((button) => [
        button.classList.contains('own'),
        button.classList.contains('none'),
        button.classList.contains('ours'),
      ]),
    ).toEqual([
      [true, false, false],
      [false, false, false],
      [true, true, false],
      [true, false, true],
      [true, true, false],
      [true, true, false],
    ]);
    expect(buttons[1].getAttribute('aria-label')).toBe('Text, hover: rgb(1, 2, 3), as at rest');
    expect(buttons[3].getAttribute('aria-label')).toBe('Fill, hover: rgb(1, 2, 3), our override');
  });

  it('is one stop for the keyboard and walks with arrows, within its bounds', async () => {
    const { host, buttons, chosen } = await create();
    expect(buttons.filter((button) => button.tabIndex === 0).length).toBe(1);
    for (const key of ['ArrowRight', 'ArrowDown', 'ArrowLeft', 'ArrowUp'])
      host.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }));
    expect(chosen).toEqual([
      { row: 'text', state: 'hover' },
      { row: 'fill', state: 'hover' },
      { row: 'fill', state: 'rest' },
      { row: 'text', state: 'rest' },
    ]);
    host.dispatchEvent(new KeyboardEvent('keydown', { key: 'ArrowUp', bubbles: true }));
    expect(chosen.at(-1)).toEqual({ row: 'text', state: 'rest' });
    buttons[3].click();
    expect(chosen.at(-1)).toEqual({ row: 'fill', state: 'hover' });
  });

  it('heads the states that another element brings about by how that stands, and leads to others that tell', async () => {
    const { fixture, host } = await create();
    fixture.componentRef.setInput('inspection', {
      ...INSPECTION,
      states: ['rest', 'switched'],
      quietStates: ['valid', 'read-only'],
      otherCarriers: [{ element: 9, words: 'div.box is open' }],
      carrier: {
        element: 4,
        name: 'input.tick',
        relation: 'before',
        words: { switched: 'input.tick is checked' },
        heads: { switched: 'checked' },
      },
      grid: [{ row: 'text', cells: [cell({}), cell({ state: 'switched' })] }],
    } as unknown as Spoken<Inspection>);
    const followed: number[] = [];
    fixture.componentInstance.followed.subscribe((element) => followed.push(element));
    await fixture.whenStable();
    expect(
      [...host.querySelectorAll('thead th')].map((head) => `${head.textContent} | ${head.getAttribute('title')}`),
    ).toEqual(['Rest | Rest', 'Checked | Where input.tick is checked']);
    expect(host.querySelectorAll('td button')[1].getAttribute('aria-label')).toBe('Text, checked: rgb(1, 2, 3)');
    const mores = [...host.querySelectorAll<HTMLButtonElement>('.more')];
    expect(mores.map(({ textContent }) => textContent?.trim())).toEqual([
      'All 1 rows',
      '2 more states',
      'or where div.box is open',
    ]);
    mores[2].click();
    expect(followed).toEqual([9]);
  });
});
