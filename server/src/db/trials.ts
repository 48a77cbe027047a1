import type { TrialCount, TrialDecision, TrialDocument, VariationDocument } from '@upper-veneer/contract';
import type { DayCount } from '@upper-veneer/core';
import type { Db } from './db.js';

/** What of a trial does not change once it is planned. */
export type TrialBody = Pick<TrialDocument, 'looks' | 'plan' | 'conversions' | 'seen'>;

/** Something a visitor did, told once. */
export interface TrialEvent {
  /** Drawn by the visitor's browser for this one event; says nothing of who it is. */
  readonly id: string;
  readonly trialId: number;
  readonly variation: string;
  /** -1 for seen, else which conversion. */
  readonly kind: number;
  /** ISO 8601 date, UTC. */
  readonly day: string;
}

interface TrialRow {
  readonly id: number;
  readonly name: string;
  readonly state: TrialDocument['state'];
  readonly body: string;
  readonly proofs: string;
  readonly madeAt: string;
  readonly startedAt: string | null;
  readonly decision: string | null;
}

export type Trials = ReturnType<typeof createTrials>;

/** Forks of drafts, the trials that hold them against each other, and what was counted. */
export function createTrials(db: Db) {
  const columns = 'id, name, state, body, proofs, made_at AS madeAt, started_at AS startedAt, decision';
  const statements = {
    variations: db.prepare<[number], Omit<VariationDocument, 'settings'> & { readonly settings: string }>(
      'SELECT id, name, revision, settings, made_at AS madeAt FROM variation WHERE site_id = ? ORDER BY id DESC',
    ),
    insertVariation: db.prepare<[number, string, number, string, string]>(
      'INSERT INTO variation (site_id, name, revision, settings, made_at) VALUES (?, ?, ?, ?, ?)',
    ),
    dropVariation: db.prepare<[number, number]>('DELETE FROM variation WHERE site_id = ? AND id = ?'),
    bySite: db.prepare<[number], TrialRow>(`SELECT ${columns} FROM trial WHERE site_id = ? ORDER BY id DESC`),
    byId: db.prepare<[number, number], TrialRow>(`SELECT ${columns} FROM trial WHERE site_id = ? AND id = ?`),
    running: db.prepare<[number], TrialRow>(`SELECT ${columns} FROM trial WHERE site_id = ? AND state = 'running'`),
    insert: db.prepare<[number, string, string, string]>(
      "INSERT INTO trial (site_id, name, state, body, proofs, made_at) VALUES (?, ?, 'planned', ?, '[]', ?)",
    ),
    setState: db.prepare<[string, string | null, number]>(
      'UPDATE trial SET state = ?, started_at = COALESCE(started_at, ?) WHERE id = ?',
    ),
    setProofs: db.prepare<[string, number]>('UPDATE trial SET proofs = ? WHERE id = ?'),
    decide: db.prepare<[string, number]>("UPDATE trial SET state = 'decided', decision = ? WHERE id = ?"),
    drop: db.prepare<[number, number]>('DELETE FROM trial WHERE site_id = ? AND id = ?'),
    // An event that is told again changes nothing.
    note: db.prepare<[string, number, string, number, string]>(
      'INSERT INTO trial_event (id, trial_id, variation, kind, day) VALUES (?, ?, ?, ?, ?) ON CONFLICT (id) DO NOTHING',
    ),
    events: db.prepare<
      [number],
      { readonly kind: number; readonly day: string; readonly variation: string; readonly many: number }
    >(
      'SELECT kind, day, variation, COUNT(*) AS many FROM trial_event WHERE trial_id = ? GROUP BY kind, day, variation',
    ),
    counts: db.prepare<[number], TrialCount>(
      'SELECT source, conversion, day, variation, seen, pressed FROM trial_count WHERE trial_id = ? ORDER BY day, variation, conversion',
    ),
    addCount: db.prepare<[number, string, number, string, string, number, number]>(
      'INSERT INTO trial_count (trial_id, source, conversion, day, variation, seen, pressed) VALUES (?, ?, ?, ?, ?, ?, ?) ON CONFLICT (trial_id, source, conversion, day, variation) DO UPDATE SET seen = seen + excluded.seen, pressed = pressed + excluded.pressed',
    ),
    dropCounts: db.prepare<[number, string]>('DELETE FROM trial_count WHERE trial_id = ? AND source = ?'),
  };
  const countsOf = (trialId: number, conversions: number): TrialCount[] => {
    const events = statements.events.all(trialId);
    const seen = events.filter(({ kind }) => kind === -1);
    const counted = Array.from({ length: conversions }, (_, conversion) =>
      seen.map(({ day, variation, many }): TrialCount => ({
        source: 'counted',
        conversion,
        day,
        variation,
        seen: many,
        pressed:
          events.find((own) => own.kind === conversion && own.day === day && own.variation === variation)?.many ?? 0,
      })),
    ).flat();
    return [...counted, ...statements.counts.all(trialId)];
  };
  const document = ({ id, name, state, madeAt, startedAt, body, proofs, decision }: TrialRow): TrialDocument => {
    const own = JSON.parse(body) as TrialBody;
    return {
      id,
      name,
      state,
      madeAt,
      startedAt,
      ...own,
      proofs: JSON.parse(proofs) as TrialDocument['proofs'],
      decision: decision === null ? null : (JSON.parse(decision) as TrialDecision),
      counts: countsOf(id, own.conversions.length),
    };
  };
  return {
    variations: (siteId: number): VariationDocument[] =>
      statements.variations
        .all(siteId)
        .map(({ settings, ...own }) => ({ ...own, settings: JSON.parse(settings) as VariationDocument['settings'] })),
    keepVariation: (siteId: number, { name, revision, settings, madeAt }: Omit<VariationDocument, 'id'>): void => {
      statements.insertVariation.run(siteId, name, revision, JSON.stringify(settings), madeAt);
    },
    dropVariation: (siteId: number, id: number): void => {
      statements.dropVariation.run(siteId, id);
    },
    bySite: (siteId: number): TrialDocument[] => statements.bySite.all(siteId).map(document),
    byId: (siteId: number, id: number): TrialDocument | null => {
      const row = statements.byId.get(siteId, id);
      return row ? document(row) : null;
    },
    /** The one that runs, without what was counted; `null` for none. */
    running: (siteId: number): (Pick<TrialDocument, 'id'> & TrialBody) | null => {
      const row = statements.running.get(siteId);
      return row ? { id: row.id, ...(JSON.parse(row.body) as TrialBody) } : null;
    },
    plan: (siteId: number, name: string, body: TrialBody, madeAt: string): number =>
      Number(statements.insert.run(siteId, name, JSON.stringify(body), madeAt).lastInsertRowid),
    setState: (id: number, state: 'running' | 'paused', at: string): void => {
      statements.setState.run(state, state === 'running' ? at : null, id);
    },
    prove: (id: number, proofs: TrialDocument['proofs']): void => {
      statements.setProofs.run(JSON.stringify(proofs), id);
    },
    decide: (id: number, decision: TrialDecision): void => {
      statements.decide.run(JSON.stringify(decision), id);
    },
    drop: (siteId: number, id: number): void => {
      statements.drop.run(siteId, id);
    },
    /** Notes events, all or none of them; one that was noted before changes nothing. */
    note: db.transaction((events: readonly TrialEvent[]): void => {
      for (const { id, trialId, variation, kind, day } of events)
        statements.note.run(id, trialId, variation, kind, day);
    }),
    /** Stores a trial of another database as it was; one that ran there is paused here, where no visitor knows it. */
    restore: db.transaction((siteId: number, trial: Omit<TrialDocument, 'id'>): void => {
      const { name, state, looks, plan, conversions, seen, proofs, madeAt, startedAt, decision, counts } = trial;
      const body: TrialBody = { looks, plan, conversions, seen };
      const id = Number(statements.insert.run(siteId, name, JSON.stringify(body), madeAt).lastInsertRowid);
      statements.setProofs.run(JSON.stringify(proofs), id);
      if (state !== 'planned') statements.setState.run('paused', startedAt, id);
      if (decision) statements.decide.run(JSON.stringify(decision), id);
      for (const own of counts)
        statements.addCount.run(id, own.source, own.conversion, own.day, own.variation, own.seen, own.pressed);
    }),
    /** Adds counts of a source, or puts them in place of those it had. */
    addCounts: db.transaction(
      (trialId: number, source: 'made-up' | 'brought-in', counts: readonly DayCount[], isWhole: boolean): void => {
        if (isWhole) statements.dropCounts.run(trialId, source);
        for (const { day, variation, seen, pressed } of counts)
          statements.addCount.run(trialId, source, 0, day, variation, seen, pressed);
      },
    ),
  };
}
