import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { storeSite } from '../captures.js';
import { createStore, type Store } from '../store.js';
import { SMALL_SITE } from '../testing/test-site.js';
import type { Db } from './db.js';
import { openDatabase } from './open.js';
import { toNewPalette, type NewPalette } from './palettes.js';

describe('the history', () => {
  let folder: string;
  let db: Db;
  let store: Store;
  let siteId: number;
  beforeEach(() => {
    folder = mkdtempSync(join(tmpdir(), 'uv-'));
    db = openDatabase(join(folder, 'a.sqlite'));
    store = createStore(db);
    siteId = storeSite(store, SMALL_SITE);
  });
  afterEach(() => {
    db.close();
    rmSync(folder, { recursive: true, force: true });
  });

  const at = '2026-01-01T00:00:00.000Z';
  const palette = (): NewPalette => toNewPalette(store.palettes.bySite(siteId));
  const putPalette = (next: NewPalette): void =>
    store.changes.applyTo(siteId, 'Palette', ['palette'], () => store.palettes.replace(siteId, next), at);
  const widened = (count: number): NewPalette => ({
    ...palette(),
    swatches: [
      ...palette().swatches,
      ...Array.from({ length: count }, (_, i) => ({ id: 0, name: `Reed ${i}`, css: '#456', note: 'from the mark' })),
    ],
  });
  const all = (): string =>
    JSON.stringify([
      palette(),
      store.parts.subject.take(siteId),
      store.exceptions.bySite(siteId),
      store.plans.bySite(siteId),
      store.arrangements.bySite(siteId),
      store.sheetOptions.bySite(siteId),
    ]);

  it('leads back and forth over changes of every subject, drawn with a seed', () => {
    let seed = 71;
    const draw = (below: number): number => {
      seed = (seed * 48_271) % 2_147_483_647;
      return seed % below;
    };
    const shuffled = <T>(list: readonly T[]): T[] => {
      const rest = [...list];
      return Array.from({ length: list.length }, () => rest.splice(draw(rest.length), 1)[0]);
    };
    const acts: readonly (() => void)[] = [
      () => putPalette({ ...palette(), swatches: shuffled(palette().swatches) }),
      () => putPalette(widened(1 + draw(4))),
      () => {
        const { swatches, roles, ...rest } = palette();
        const kept = swatches.filter(({ name }) => roles.some(({ swatch }) => swatch === name) || draw(3) > 0);
        const changed = kept.map((one) => (draw(4) ? one : { ...one, css: `#0a${draw(10)}` }));
        putPalette({ ...rest, roles, swatches: draw(2) ? changed : shuffled(changed) });
      },
      () => putPalette({ ...palette(), second: { told: { kind: 'media' } as never, roles: palette().roles } }),
      () => putPalette({ ...palette(), second: null, shape: { radius: `${draw(9)}px` } as never }),
      () => {
        const parts = shuffled(store.parts.bySite(siteId)).filter((_, i) => i === 0 || draw(4) > 0);
        const added = { id: 0, name: `Part ${draw(1e6)}`, kind: 'card', selector: '.x', openers: [] } as const;
        store.changes.applyTo(
          siteId,
          'Parts',
          ['parts'],
          () => store.parts.replace(siteId, [...parts, added] as never),
          at,
        );
      },
      () => {
        const exceptions = Array.from({ length: draw(4) }, (_, i) => ({
          kind: 'color' as const,
          target: `#00${draw(10)}${i}${draw(10)}0`,
          reason: 'kept',
        }));
        store.changes.applyTo(
          siteId,
          'Exceptions',
          ['exceptions'],
          () => store.exceptions.replace(siteId, exceptions),
          at,
        );
      },
    ];
    const states = [all()];
    for (let i = 0; i < 120; i += 1) {
      acts[draw(acts.length)]();
      states.push(all());
    }
    const back = states.map((_, i) => {
      if (i > 0) store.changes.undo(siteId);
      return all();
    });
    expect(back.reverse()).toEqual(states);
    const forth = states.map((_, i) => {
      if (i > 0) store.changes.redo(siteId);
      return all();
    });
    expect(forth).toEqual(states);
  });

  it('keeps of a palette what a change is about, not the whole', () => {
    putPalette(widened(60));
    const before = palette();
    putPalette({
      ...before,
      swatches: before.swatches.map((one, i) => (i === 30 ? { ...one, css: '#123456' } : one)),
    });
    const rows = db
      .prepare<[], { size: number }>('SELECT length(before) + length(after) AS size FROM change ORDER BY id')
      .all();
    expect(JSON.stringify(before).length).toBeGreaterThan(4000);
    expect(rows[1].size).toBeLessThan(400);
  });

  it('brings back what was kept whole, as all once was', () => {
    const before = palette();
    putPalette(widened(2));
    db.prepare('UPDATE change SET before = ?').run(JSON.stringify({ palette: before }));
    store.changes.undo(siteId);
    expect(palette()).toEqual(before);
  });

  it('stays true to names that swatches went out under in between', () => {
    putPalette(widened(1));
    store.palettes.keepNames(siteId, {});
    store.changes.undo(siteId);
    store.changes.redo(siteId);
    expect(palette().swatches.map(({ name }) => name)).toEqual(['Willow', 'Chalk', 'Reed 0']);
  });
});
