import type { Override } from '@upper-veneer/core';
import type { Db } from './db.js';
import { applied, differencesOf, type Difference } from './difference.js';
import type { Overrides } from './overrides.js';
import type { Sites } from './sites.js';
import type { Subject } from './subject.js';

/** Overrides as they stood, by id; `null` where there was none. */
type Snapshot = readonly { readonly id: string; readonly override: Override | null }[];

/** What a change touched, on one side of it: some overrides as they stood, and of other subjects by name what leads there from the other side. */
type Side = Snapshot | Readonly<Record<string, unknown>>;

type Differences = Readonly<Record<string, Difference>>;

interface ChangeRow {
  readonly id: number;
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

/** Told when steps that were undone are about to be forgotten, while the draft is as they had left it. */
export type LeaveDraft = (siteId: number, left: LeftSteps) => void;

/** Steps that are written over. */
export interface LeftSteps {
  /** The last of them. */
  readonly label: string;
  readonly steps: number;
  readonly at: string;
}

export type Changes = ReturnType<typeof createChanges>;

/** Changes that can be taken back, a site; older ones are forgotten. Revisions are not among them and stay. */
export const MOST_CHANGES = 1000;

/** The subject that is kept override by override. */
const OVERRIDES = 'overrides';
/** Key under which those stand beside other subjects. */
const SINGLE = 'single overrides';
/** Key under which subjects stand by what differs; a subject under its own name is kept whole, as all once were. */
const DIFFERENCES = 'differences';

/** The history of the draft: the last changes, undone or not, each in one transaction and with what it changed alone. */
export function createChanges<Subjects extends Readonly<Record<string, Subject<unknown>>>>(
  db: Db,
  overrides: Overrides,
  sites: Sites,
  subjects: Subjects,
  leave: LeaveDraft = () => undefined,
) {
  const statements = {
    insert: db.prepare<[number, string, string, string, string]>(
      'INSERT INTO change (site_id, label, before, after, made_at) VALUES (?, ?, ?, ?, ?)',
    ),
    forgetUndone: db.prepare<[number]>('DELETE FROM change WHERE site_id = ? AND undone = 1'),
    forgetAll: db.prepare<[number]>('DELETE FROM change WHERE site_id = ?'),
    lastDone: db.prepare<[number], ChangeRow>(
      'SELECT id, label, before, after FROM change WHERE site_id = ? AND undone = 0 ORDER BY id DESC LIMIT 1',
    ),
    firstUndone: db.prepare<[number], ChangeRow>(
      'SELECT id, label, before, after FROM change WHERE site_id = ? AND undone = 1 ORDER BY id LIMIT 1',
    ),
    sides: db.prepare<[number], Pick<ChangeRow, 'id' | 'before' | 'after'>>(
      'SELECT id, before, after FROM change WHERE site_id = ?',
    ),
    putSides: db.prepare<[string, string, number]>('UPDATE change SET before = ?, after = ? WHERE id = ?'),
    trim: db.prepare<[number, number, number]>(
      'DELETE FROM change WHERE site_id = ? AND id <= (SELECT id FROM change WHERE site_id = ? ORDER BY id DESC LIMIT 1 OFFSET ?)',
    ),
    log: db.prepare<[number], { readonly label: string; readonly madeAt: string; readonly undone: number }>(
      'SELECT label, made_at AS madeAt, undone FROM change WHERE site_id = ? ORDER BY id',
    ),
    mark: db.prepare<[number, number]>('UPDATE change SET undone = ? WHERE id = ?'),
  };
  const byName: Readonly<Record<string, Subject<unknown>>> = subjects;
  const snapshot = (siteId: number, ids: readonly string[]): Snapshot =>
    ids.map((id) => ({ id, override: overrides.byId(siteId, id) }));
  const restoreOverrides = (siteId: number, snapshot: Snapshot): void => {
    for (const { id, override } of snapshot) {
      if (override) overrides.put(siteId, override);
      else overrides.drop(siteId, id);
    }
  };
  /** Puts one side of a change back. @returns the subjects that were put. */
  const putBack = (siteId: number, text: string): string[] => {
    const side = JSON.parse(text) as Side;
    if (isSnapshot(side)) {
      restoreOverrides(siteId, side);
      return [];
    }
    // Single overrides last: they stand in parts that come back with the others.
    const { [SINGLE]: single = [], [DIFFERENCES]: differences = {}, ...whole } = side;
    for (const [name, value] of Object.entries(whole)) byName[name].put(siteId, value);
    for (const [name, difference] of Object.entries(differences as Differences))
      byName[name].put(siteId, applied(byName[name].take(siteId), difference));
    restoreOverrides(siteId, single as Snapshot);
    return [...Object.keys(whole), ...Object.keys(differences as Differences)];
  };
  const restore = (siteId: number, text: string): void => {
    if (putBack(siteId, text).some((name) => byName[name].isStructure)) sites.countStructure(siteId);
    sites.countVersion(siteId);
  };
  /**
   * Has the draft that undone steps lead to kept, before another step is taken in their place. It is gone through and come back from
   * within one transaction, so that nobody sees it and no version is counted.
   */
  const leaveUndone = (siteId: number, at: string): void => {
    let label = '';
    let steps = 0;
    for (let next = statements.firstUndone.get(siteId); next; next = statements.firstUndone.get(siteId)) {
      putBack(siteId, next.after);
      statements.mark.run(0, next.id);
      ({ label } = next);
      steps += 1;
    }
    if (steps === 0) return;
    leave(siteId, { label, steps, at });
    for (let i = 0; i < steps; i += 1) {
      const last = statements.lastDone.get(siteId);
      if (!last) return;
      putBack(siteId, last.before);
      statements.mark.run(1, last.id);
    }
  };
  const record = (siteId: number, label: string, before: Side, after: Side, madeAt: string): void => {
    statements.forgetUndone.run(siteId);
    statements.insert.run(siteId, label, JSON.stringify(before), JSON.stringify(after), madeAt);
    statements.trim.run(siteId, siteId, MOST_CHANGES);
    sites.countVersion(siteId);
  };
  return {
    /** Changes subjects, and remembers them as they were and as they are. */
    applyTo: db.transaction(
      (
        siteId: number,
        label: string,
        names: readonly (keyof Subjects & string)[],
        act: () => void,
        madeAt: string,
      ): void => {
        leaveUndone(siteId, madeAt);
        const take = (): Map<string, unknown> =>
          new Map(
            names.map((name) => [name, name === OVERRIDES ? overrides.bySite(siteId) : byName[name].take(siteId)]),
          );
        const before = take();
        act();
        record(siteId, label, ...differing(before, take()), madeAt);
        if (names.some((name) => byName[name].isStructure)) sites.countStructure(siteId);
      },
    ),
    apply: db.transaction(
      (siteId: number, label: string, put: readonly Override[], drop: readonly string[], madeAt: string): void => {
        leaveUndone(siteId, madeAt);
        const ids = [...new Set([...put.map(({ id }) => id), ...drop])];
        const before = snapshot(siteId, ids);
        for (const id of drop) overrides.drop(siteId, id);
        for (const override of put) overrides.put(siteId, override);
        record(siteId, label, before, snapshot(siteId, ids), madeAt);
      },
    ),
    /** Takes the last change back; `false` when there is none. */
    undo: db.transaction((siteId: number): boolean => {
      const change = statements.lastDone.get(siteId);
      if (!change) return false;
      restore(siteId, change.before);
      statements.mark.run(1, change.id);
      return true;
    }),
    redo: db.transaction((siteId: number): boolean => {
      const change = statements.firstUndone.get(siteId);
      if (!change) return false;
      restore(siteId, change.after);
      statements.mark.run(0, change.id);
      return true;
    }),
    /** Every override that the history leads back to, each once. */
    overridesIn: (siteId: number): Override[] => {
      const found = new Map<string, Override>();
      for (const { before, after } of statements.sides.all(siteId))
        for (const text of [before, after])
          for (const { override } of snapshotsIn(JSON.parse(text) as Side))
            if (override) found.set(JSON.stringify(override), override);
      return [...found.values()];
    },
    /** Puts others in place of overrides that the history leads back to; what it holds of pages as they were captured goes. */
    rewrite: db.transaction((siteId: number, moved: ReadonlyMap<string, Override>): void => {
      for (const { id, before, after } of statements.sides.all(siteId)) {
        const sides = [before, after].map((text) => JSON.stringify(rewritten(JSON.parse(text) as Side, moved)));
        if (sides[0] !== before || sides[1] !== after) statements.putSides.run(sides[0], sides[1], id);
      }
    }),
    /** Forgets the history, where what it leads back to is gone. */
    forget: (siteId: number): void => {
      statements.forgetAll.run(siteId);
    },
    /** All changes that are kept, the oldest first. */
    log: (siteId: number): { readonly label: string; readonly madeAt: string; readonly isUndone: boolean }[] =>
      statements.log.all(siteId).map(({ label, madeAt, undone }) => ({ label, madeAt, isUndone: undone === 1 })),
    labels: (siteId: number) => ({
      undo: statements.lastDone.get(siteId)?.label ?? null,
      redo: statements.firstUndone.get(siteId)?.label ?? null,
    }),
  };
}

/** Single overrides on one side of a change. */
function snapshotsIn(side: Side): Snapshot {
  return isSnapshot(side) ? side : ((side[SINGLE] as Snapshot | undefined) ?? []);
}

function isSnapshot(side: Side): side is Snapshot {
  return Array.isArray(side);
}

/** A side with others in place of some overrides, and without the order of sheets, which is that of a capture. */
function rewritten(side: Side, moved: ReadonlyMap<string, Override>): Side {
  const next = (snapshot: Snapshot): Snapshot =>
    snapshot.map(({ id, override }) => ({
      id,
      override: override && (moved.get(JSON.stringify(override)) ?? override),
    }));
  if (isSnapshot(side)) return next(side);
  const { [SINGLE]: single, [DIFFERENCES]: differences, arrangement, ...rest } = side;
  return {
    ...rest,
    ...(single === undefined ? {} : { [SINGLE]: next(single as Snapshot) }),
    // Where the veneer stands is no matter of a capture.
    ...(arrangement === undefined ? {} : { arrangement: { ...(arrangement as object), sheetOrders: {} } }),
    ...(differences === undefined ? {} : { [DIFFERENCES]: withoutOrders(differences as Differences) }),
  };
}

function withoutOrders({ arrangement, ...rest }: Differences): Differences {
  if (arrangement === undefined) return rest;
  const kept = Object.entries(arrangement).filter(([name]) => name !== 'sheetOrders');
  return { ...rest, arrangement: Object.fromEntries(kept) };
}

/** Both sides of a change, without what is the same on either. */
function differing(before: ReadonlyMap<string, unknown>, after: ReadonlyMap<string, unknown>): [Side, Side] {
  const [old, now]: Record<string, unknown>[] = [{}, {}];
  const [oldDifferences, nowDifferences]: Record<string, Difference>[] = [{}, {}];
  for (const [name, value] of before) {
    const next = after.get(name);
    if (JSON.stringify(value) === JSON.stringify(next)) continue;
    if (name !== OVERRIDES) {
      const { there, back } = differencesOf(value, next);
      oldDifferences[name] = back;
      nowDifferences[name] = there;
      continue;
    }
    const [was, is] = [value, next].map(
      (list) => new Map((list as readonly Override[]).map((override) => [override.id, override])),
    );
    const ids = [...new Set([...was.keys(), ...is.keys()])].filter(
      (id) => JSON.stringify(was.get(id)) !== JSON.stringify(is.get(id)),
    );
    old[SINGLE] = ids.map((id) => ({ id, override: was.get(id) ?? null }));
    now[SINGLE] = ids.map((id) => ({ id, override: is.get(id) ?? null }));
  }
  if (Object.keys(nowDifferences).length > 0) {
    old[DIFFERENCES] = oldDifferences;
    now[DIFFERENCES] = nowDifferences;
  }
  return [old, now];
}
