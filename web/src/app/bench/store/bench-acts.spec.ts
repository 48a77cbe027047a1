import { type Spoken, say } from '@upper-veneer/words';
import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { ChangeRequest } from '@upper-veneer/contract';
import {
  stateTold,
  type Companion,
  type Look,
  type Override,
  type OverrideState,
  type OverrideWish,
} from '@upper-veneer/core';
import { EMPTY } from 'rxjs';
import { Engine } from '../../shared/engine/engine';
import { DraftEdits } from '../../shared/site/draft-edits';
import { Messages } from '../../shared/spoken/messages';
import { SiteStore } from '../../shared/site/site-store';
import { BenchActs } from './bench-acts';
import { BenchAnswers } from './bench-answers';
import { BenchSelection } from './bench-selection';

const OVERRIDE: Override = {
  id: 'o1',
  partId: 3,
  pageId: 1,
  element: 5,
  pseudo: '',
  reach: 'alike',
  state: 'rest',
  property: 'color',
  value: { kind: 'role', role: 'accent', shade: 0 },
  selector: '.go',
  important: false,
};
const VALUE = { kind: 'literal', css: '#123456' } as const;

describe('BenchActs', () => {
  let acts: BenchActs;
  let planned: OverrideWish[][];
  let stored: ChangeRequest[];
  let reported: string[];
  let plan: { put: readonly Override[]; drop: readonly string[]; refused: readonly string[] };
  let proposed: readonly OverrideWish[];
  const bench = {
    target: signal<object | null>(null),
    cell: signal({ row: 'text', state: 'rest' }),
    changed: signal<object | null>(null),
    inspection: signal<object | null>(null),
    rowProperty: signal<object>({}),
    reach: signal('alike'),
    stateWord: (state: OverrideState): string => say(stateTold(state)),
    group: signal<string | null>(null),
    pages: signal<readonly number[] | null>(null),
    spared: signal<readonly object[]>([]),
    range: signal<object | null>(null),
    width: signal(1280),
    cellOverrides: signal<readonly Override[]>([]),
    ownOverride: signal<Override | null>(null),
    property: signal('color'),
  };
  const settled = (): Promise<void> => new Promise((done) => setTimeout(done, 5));

  beforeEach(() => {
    planned = [];
    stored = [];
    reported = [];
    proposed = [];
    plan = { put: [OVERRIDE], drop: [], refused: [] };
    bench.target.set({ pageId: 1, element: 5, pseudo: '' });
    bench.changed.set({ pageId: 1, element: 5, pseudo: '' });
    bench.cell.set({ row: 'text', state: 'rest' });
    bench.inspection.set({ name: 'Hold my place', parent: 2, partId: 3 });
    bench.rowProperty.set({ property: 'color', words: 'text' });
    bench.reach.set('alike');
    bench.pages.set(null);
    bench.spared.set([]);
    bench.range.set(null);
    bench.cellOverrides.set([]);
    bench.ownOverride.set(null);
    const remote = {
      plan: (wishes: OverrideWish[]) => {
        planned.push(wishes);
        return Promise.resolve(plan);
      },
      proposeStates: () => Promise.resolve({ wishes: proposed, leftAlone: 0 }),
      pasteLook: () => Promise.resolve({ wishes: proposed, leftAlone: 0 }),
      copyLook: () => Promise.resolve({ name: 'Apply' } as unknown as Spoken<Look>),
      overridesOfCell: () => Promise.resolve([]),
      explain: () => Promise.resolve({ resolved: 'rgb(1, 2, 3)' }),
    };
    const site = {
      palette: () => ({ swatches: [], roles: [] }),
      overrides: () => [OVERRIDE, { ...OVERRIDE, id: 'o2', partId: 9 }],
      site: () => ({ parts: [{ id: 3, name: 'Booking form' }] }),
      change: (request: ChangeRequest) => {
        stored.push(request);
        return EMPTY;
      },
      report: ({ title }: { title: string }) => reported.push(title),
    };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        BenchActs,
        { provide: BenchSelection, useValue: bench },
        { provide: BenchAnswers, useValue: bench },
        { provide: Engine, useValue: { remote } },
        { provide: SiteStore, useValue: site },
        { provide: DraftEdits, useValue: site },
        { provide: Messages, useValue: site },
      ],
    });
    acts = TestBed.inject(BenchActs);
    // What follows the target and the cell has then taken note of them.
    TestBed.tick();
  });

  it('stores what the plan puts and drops, under a name that undo can say', async () => {
    plan = { put: [OVERRIDE], drop: ['old'], refused: [] };
    acts.setValue(VALUE);
    await settled();
    expect(planned[0][0]).toEqual(
      jasmine.objectContaining({
        element: 5,
        property: 'color',
        state: 'rest',
        reach: 'alike',
        value: VALUE,
        width: 1280,
      }),
    );
    expect(stored.map(({ put, drop }) => [put.length, drop])).toEqual([[1, ['old']]]);
    expect(stored[0].label).toContain('Hold my place');
  });

  it('says why nothing was written, and stores nothing', async () => {
    plan = { put: [], drop: [], refused: ['No selector tells this element from the others'] };
    acts.setValue(VALUE);
    await settled();
    expect(acts.refusal()).toBe('No selector tells this element from the others');
    expect(stored).toEqual([]);
  });

  it('passes on widths, pages and matches left out, and the parent for a parent’s state', async () => {
    bench.pages.set([1, 2]);
    bench.spared.set([{ pageId: 1, element: 7 }]);
    bench.range.set({ min: null, max: 600 });
    bench.cell.set({ row: 'text', state: 'parent-hover' });
    acts.setValue(VALUE);
    await settled();
    expect(planned[0][0]).toEqual(
      jasmine.objectContaining({
        pages: [1, 2],
        spared: [{ pageId: 1, element: 7 }],
        widths: { min: null, max: 600 },
        state: 'parent-hover',
        parent: 2,
      }),
    );
  });

  it('has a selector by hand written anew in one step, for what the override was made for', async () => {
    acts.setSelector({ ...OVERRIDE, isByHand: true, widths: { min: 600, max: null } }, '');
    await settled();
    expect(planned).toEqual([
      [
        jasmine.objectContaining({
          isAfresh: true,
          element: 5,
          property: 'color',
          value: OVERRIDE.value,
          widths: { min: 600, max: null },
        }),
      ],
    ]);
    expect(stored.length).toBe(1);
    acts.setSelector(OVERRIDE, ' .mine ');
    expect(stored[1].put[0]).toEqual(jasmine.objectContaining({ selector: '.mine', isByHand: true }));
  });

  it('writes an override anew when its reach changes, and leaves what is not there alone', async () => {
    acts.setReach('alike');
    acts.setReach('one');
    await settled();
    expect(planned).toEqual([]);
    bench.ownOverride.set(OVERRIDE);
    acts.setReach('everywhere');
    await settled();
    expect(planned[0][0]).toEqual(
      jasmine.objectContaining({ reach: 'everywhere', group: null, value: OVERRIDE.value }),
    );
    acts.setReach('group', '.form .btn:not(.primary)');
    await settled();
    expect(planned[1][0]).toEqual(jasmine.objectContaining({ reach: 'group', group: '.form .btn:not(.primary)' }));
  });

  it('settles a state that is meant to look as it does', () => {
    bench.cellOverrides.set([{ ...OVERRIDE, meant: ['focus'] }]);
    acts.settle('hover');
    expect(stored[0].put[0]).toEqual(jasmine.objectContaining({ id: OVERRIDE.id, meant: ['focus', 'hover'] }));
  });

  it('leaves single matches out and takes them in again', () => {
    acts.toggleSpared(1, 7);
    acts.toggleSpared(1, 8);
    acts.toggleSpared(1, 7);
    expect(bench.spared()).toEqual([{ pageId: 1, element: 8 }]);
  });

  it('takes out a cell or a whole part, each in one step', () => {
    acts.clearCell();
    expect(stored).toEqual([]);
    bench.cellOverrides.set([OVERRIDE]);
    acts.clearCell();
    acts.clearPart();
    expect(stored.map(({ label, drop }) => [label, drop])).toEqual([
      ['Clear rest text of Hold my place', ['o1']],
      ['Reset Booking form', ['o1']],
    ]);
  });

  it('says so where there is nothing to fill or paste, and fills in one step where there is', async () => {
    await acts.fillStates();
    await acts.pasteLook();
    await acts.copyLook();
    await acts.pasteLook();
    expect(reported).toEqual(['Nothing to fill', 'Nothing to paste']);
    proposed = [
      { ...OVERRIDE, width: 1280, state: 'hover' },
      { ...OVERRIDE, width: 1280, state: 'focus' },
    ];
    await acts.fillStates();
    await settled();
    expect(planned[0].map(({ state }) => state)).toEqual(['hover', 'focus']);
    expect(stored.length).toBe(1);
  });

  it('gives a state the value it has at rest, even where no override of ours sets that', async () => {
    bench.cell.set({ row: 'text', state: 'hover' });
    await acts.asAtRest();
    await settled();
    expect(planned[0][0]).toEqual(
      jasmine.objectContaining({ state: 'hover', value: { kind: 'literal', css: 'rgb(1, 2, 3)' } }),
    );
  });

  it('takes companions together, named by one or by their number', async () => {
    const companion = (name: string): Spoken<Companion> =>
      ({ name, proposedWords: 'On accent', wish: { ...OVERRIDE, width: 1280 } }) as unknown as Spoken<Companion>;
    acts.takeCompanions([]);
    acts.takeCompanions([companion('Text')]);
    acts.takeCompanions([companion('Text'), companion('Icon')]);
    await settled();
    expect(stored.map(({ label }) => label)).toEqual(['Text: On accent', '2 companions on Hold my place']);
  });
});
