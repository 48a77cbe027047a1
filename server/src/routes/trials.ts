import { Router } from 'express';
import {
  CountsRequest,
  DecisionRequest,
  TrafficRequest,
  TrialRequest,
  TrialStateRequest,
  VariationRequest,
  type TrialDocument,
  type TrialLook,
  type TrialsDocument,
} from '@upper-veneer/contract';
import { message, judgeTrial, selectorProblem, type Override, type TrialPair, type Message } from '@upper-veneer/core';
import { checkOverrides, describeDraft } from '../draft.js';
import type { DraftEvents } from '../draft-events.js';
import type { BasisRow } from '../draft-basis.js';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import { firstOf } from '../http/refusal.js';
import type { AddressPolicy } from '@upper-veneer/browser';
import { sendToMaker } from '../makers/ask-maker.js';
import { askedAt } from '../makers/maker-address.js';
import { bringBack } from '../revision-basis.js';
import { saveRevision } from '../save-revision.js';
import { settledOf } from '../settings.js';
import type { Store } from '../store.js';
import type { WorkPool } from '../work/work-pool.js';

export interface TrialRouteOptions {
  readonly store: Store;
  readonly events: DraftEvents;
  readonly pool: WorkPool;
  readonly policy: () => AddressPolicy;
  readonly widgetsAt: (siteId: number) => string;
  readonly now: () => Date;
}

/** Names of variations, in their order. */
const NAMES = ['A', 'B', 'C', 'D', 'E', 'F'] as const;

/** Variations of the draft, and the trials that hold them against each other. */
export function trialRoutes({ store, events, pool, policy, widgetsAt, now }: TrialRouteOptions): Router {
  const router = Router();
  const siteOf = (text: string | string[] | undefined): number => {
    const id = readId(text);
    if (!store.sites.byId(id)) throw noSite(id);
    return id;
  };
  const trialOf = (params: Readonly<Record<string, string | string[]>>): [number, TrialDocument] => {
    const siteId = siteOf(params['siteId']);
    const trial = store.trials.byId(siteId, readId(params['trialId']));
    if (!trial) throw new HttpProblem(404, 'refused.not-found', message('refusal.no-trial'));
    return [siteId, trial];
  };
  const all = (siteId: number): TrialsDocument => ({
    trials: store.trials.bySite(siteId),
    variations: store.trials.variations(siteId),
  });
  const announce = (siteId: number): void => events.announce(siteId, store.sites.byId(siteId)?.version ?? 0);
  /** The draft as it stands, saved where it equals no revision. */
  const savedDraft = async (siteId: number, note: string): Promise<number> => {
    const equal = describeDraft(store, siteId).equalsRevision;
    const number =
      equal ??
      (await saveRevision({
        store,
        pool,
        siteId,
        note,
        overrides: store.overrides.bySite(siteId),
        at: now().toISOString(),
      }));
    if (number === null) throw new HttpProblem(404, 'refused.not-found', message('refusal.site-gone'));
    return number;
  };
  /** What colours and names a revision was compiled with, as a text that tells it from others. */
  const paletteOf = (siteId: number, revision: number): string => {
    const { palette, naming } = JSON.parse(
      store.revisions.byNumber(siteId, revision)?.basis ?? '{}',
    ) as Partial<BasisRow>;
    return JSON.stringify([palette, naming]);
  };
  router.get('/sites/:siteId/trials', (request, response) => {
    response.set('cache-control', 'no-store').json(all(siteOf(request.params.siteId)));
  });
  router.post('/sites/:siteId/variations', async (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { name, put, drop, settings = [] } = readBody(VariationRequest, request.body);
    const own = put.map((override): Override => ({ ...override, partId: override.partId ?? null }));
    const errors = checkOverrides(store, siteId, own);
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-kept', firstOf(errors), errors);
    if (own.length + drop.length + settings.length === 0)
      throw new HttpProblem(422, 'refused.not-kept', message('refusal.empty-variation'));
    const gone = new Set([...drop, ...own.map(({ id }) => id)]);
    const overrides = [...store.overrides.bySite(siteId).filter(({ id }) => !gone.has(id)), ...own];
    const note = `Variation: ${name}`;
    const at = now().toISOString();
    const revision =
      own.length + drop.length === 0
        ? await savedDraft(siteId, note)
        : await saveRevision({ store, pool, siteId, note, overrides, at });
    if (revision === null) throw new HttpProblem(404, 'refused.not-found', message('refusal.site-gone'));
    store.trials.keepVariation(siteId, { name, revision, settings, madeAt: at });
    store.sites.countVersion(siteId);
    announce(siteId);
    response.status(201).json(all(siteId));
  });
  router.delete('/sites/:siteId/variations/:id', (request, response) => {
    const siteId = siteOf(request.params.siteId);
    store.trials.dropVariation(siteId, readId(request.params.id));
    response.json(all(siteId));
  });
  router.post('/sites/:siteId/trials', async (request, response) => {
    const siteId = siteOf(request.params.siteId);
    const { name, variations, plan, conversions, seen } = readBody(TrialRequest, request.body);
    if (plan.base + plan.smallest >= 1) refuse('plan.smallest', message('wrong.beyond-all'));
    if (seen !== '') refuse('seen', selectorProblem(seen));
    conversions.forEach(({ kind, target }, i) => {
      if (kind !== 'reached') refuse(`conversions.${i}.target`, selectorProblem(target));
      else if (!store.pages.byPath(siteId, target))
        refuse(`conversions.${i}.target`, message('wrong.no-page-named', { name: target.slice(0, 80) }));
    });
    const ids = variations.map(({ variationId }) => variationId);
    if (new Set(ids).size < ids.length) refuse('variations', message('wrong.variation-twice'));
    const known = store.trials.variations(siteId);
    const looks: TrialLook[] = [];
    for (const [i, id] of ids.entries()) {
      const own = known.find((variation) => variation.id === id);
      if (id !== null && !own) refuse(`variations.${i}`, message('wrong.no-variation', { name: id }));
      looks.push({
        variation: NAMES[i],
        name: own?.name ?? 'As the draft is',
        revision: own?.revision ?? (await savedDraft(siteId, `Trial: ${name}`)),
        settings: own?.settings ?? [],
      });
    }
    const palettes = looks.map(({ revision }) => paletteOf(siteId, revision));
    looks.forEach(({ name: look }, i) => {
      if (palettes[i] !== palettes[0])
        refuse(`variations.${i}`, message('wrong.other-palette', { first: looks[0].name, look }));
    });
    const plain = { base: plan.base, smallest: plan.smallest, alpha: plan.alpha, power: plan.power };
    store.trials.plan(
      siteId,
      name,
      { looks, plan: plain, conversions: conversions.map(({ kind, target }) => ({ kind, target })), seen },
      now().toISOString(),
    );
    // The draft may have been saved for it.
    store.sites.countVersion(siteId);
    announce(siteId);
    response.status(201).json(all(siteId));
  });
  router.put('/sites/:siteId/trials/:trialId/state', async (request, response) => {
    const [siteId, trial] = trialOf(request.params);
    const { isRunning, proofs } = readBody(TrialStateRequest, request.body);
    if (trial.state === 'decided') throw new HttpProblem(409, 'refused.decided', message('refusal.trial-decided'));
    if (isRunning) {
      const other = store.trials.running(siteId);
      if (other && other.id !== trial.id)
        throw new HttpProblem(409, 'refused.not-started', message('refusal.another-trial-runs'));
      const proved = proofs ?? trial.proofs;
      for (const { variation, name } of trial.looks) {
        const own = proved.find((proof) => proof.variation === variation);
        if (!own)
          throw new HttpProblem(409, 'refused.not-started', message('refusal.variation-unproved', { variation, name }));
        if (own.fails > 0)
          throw new HttpProblem(
            409,
            'refused.not-started',
            message('refusal.variation-unreadable', { variation, name, fails: own.fails }),
          );
      }
      if (proofs)
        store.trials.prove(
          trial.id,
          proofs.map(({ variation, fails, looks, unseen = [] }) => ({ variation, fails, looks, unseen })),
        );
      await sendLooks(siteId, trial);
    }
    store.trials.setState(trial.id, isRunning ? 'running' : 'paused', now().toISOString());
    announce(siteId);
    response.json(all(siteId));
  });
  router.post('/sites/:siteId/trials/:trialId/traffic', async (request, response) => {
    const [siteId, trial] = trialOf(request.params);
    const { rates, seed, ...wish } = readBody(TrafficRequest, request.body);
    undecided(trial);
    if (rates.length !== trial.looks.length) refuse('rates', message('wrong.one-a-variation'));
    if (Number.isNaN(Date.parse(wish.from))) refuse('from', message('wrong.no-day'));
    if (wish.days * wish.visitors * Math.max(...wish.weekdays) > MOST_VISITORS)
      refuse('visitors', message('wrong.too-many-visitors', { most: MOST_VISITORS }));
    const named = Object.fromEntries(trial.looks.map(({ variation }, i) => [variation, rates[i]]));
    const { from, days, visitors, weekdays } = wish;
    const counts = await pool.run('traffic', { wish: { from, days, visitors, weekdays, rates: named }, seed });
    // It may have been decided or taken away meanwhile.
    undecided(trialOf(request.params)[1]);
    store.trials.addCounts(trial.id, 'made-up', counts, true);
    announce(siteId);
    response.json(all(siteId));
  });
  router.delete('/sites/:siteId/trials/:trialId/traffic', (request, response) => {
    const [siteId, trial] = trialOf(request.params);
    undecided(trial);
    store.trials.addCounts(trial.id, 'made-up', [], true);
    response.json(all(siteId));
  });
  router.put('/sites/:siteId/trials/:trialId/counts', (request, response) => {
    const [siteId, trial] = trialOf(request.params);
    const { counts } = readBody(CountsRequest, request.body);
    undecided(trial);
    counts.forEach(({ day, variation, seen, pressed }, i) => {
      if (Number.isNaN(Date.parse(day))) refuse(`counts.${i}.day`, message('wrong.no-day-named', { day }));
      if (pressed > seen) refuse(`counts.${i}.pressed`, message('wrong.more-than-all', { pressed, seen }));
      if (!trial.looks.some((look) => look.variation === variation))
        refuse(`counts.${i}.variation`, message('wrong.no-variation-of-trial', { name: variation }));
    });
    store.trials.addCounts(
      trial.id,
      'brought-in',
      counts.map(({ day, variation, seen, pressed }) => ({ day, variation, seen, pressed })),
      true,
    );
    announce(siteId);
    response.json(all(siteId));
  });
  router.post('/sites/:siteId/trials/:trialId/decision', (request, response) => {
    const [siteId, trial] = trialOf(request.params);
    const { winner, who, why, conversion: by = 0 } = readBody(DecisionRequest, request.body);
    undecided(trial);
    if (by >= trial.conversions.length) refuse('conversion', message('wrong.none-of-trial'));
    const look = trial.looks.find(({ variation }) => variation === winner);
    const revision = look && store.revisions.byNumber(siteId, look.revision);
    if (!look || !revision)
      throw new HttpProblem(422, 'refused.not-decided', message('refusal.no-such-winner', { winner }));
    const at = now().toISOString();
    const judged = judgeTrial(
      trial.counts.filter(({ conversion }) => conversion === by),
      {
        ...trial.plan,
        variations: trial.looks.map(({ variation }) => variation),
        conversions: trial.conversions.length,
      },
    );
    store.inOneStep(() => {
      bringBack({
        store,
        siteId,
        revision: { ...revision, words: `the winner of ${trial.name}` },
        at,
        withSettings:
          look.settings.length === 0
            ? undefined
            : () => {
                for (const { partId, strategy, settled, equal } of look.settings) {
                  const sheet = store.settingsSheets.rows(siteId).find((own) => own.partId === partId);
                  if (sheet)
                    store.settingsSheets.replace(siteId, partId, {
                      ...sheet,
                      strategy,
                      ...settledOf({ settled, equal }),
                    });
                }
              },
      });
      store.trials.decide(trial.id, {
        winner,
        who,
        why,
        at,
        conversion: by,
        figures: {
          sums: judged.sums,
          size: judged.size,
          splitP: judged.splitP,
          call: judged.call,
          pairs: judged.pairs.map(withoutDays),
        },
      });
    });
    announce(siteId);
    response.status(201).json(all(siteId));
  });
  router.delete('/sites/:siteId/trials/:trialId', (request, response) => {
    const [siteId, trial] = trialOf(request.params);
    if (trial.state === 'running') throw new HttpProblem(409, 'refused.not-taken-away', message('refusal.trial-runs'));
    store.trials.drop(siteId, trial.id);
    announce(siteId);
    response.json(all(siteId));
  });
  /** Has the makers told what each variation sets, beside what stands there for everybody. */
  const sendLooks = async (siteId: number, { looks }: TrialDocument): Promise<void> => {
    for (const { variation, settings } of looks)
      for (const { partId, values } of settings) {
        const address = store.settingsSheets.rows(siteId).find((own) => own.partId === partId)?.address ?? '';
        if (address === '')
          throw new HttpProblem(409, 'refused.not-started', message('refusal.settings-typed', { variation }));
        await sendToMaker(`${askedAt(address, siteId, widgetsAt)}?look=${variation}`, policy(), values);
      }
  };
  return router;
}

/** Visitors of made-up traffic at most. */
const MOST_VISITORS = 2_000_000;

/** @throws {HttpProblem} where there is a reason to. */
function refuse(field: string, reason: Message | null): void {
  const errors = reason && [{ field, reason }];
  if (errors) throw new HttpProblem(422, 'refused.not-stored', firstOf(errors), errors);
}

function undecided({ state }: TrialDocument): void {
  if (state === 'decided') throw new HttpProblem(409, 'refused.decided', message('refusal.trial-figures-stay'));
}

function withoutDays({
  variation,
  difference,
  anytime,
  fixed,
  clearFrom,
  differing,
}: TrialPair): Omit<TrialPair, 'days'> {
  return { variation, difference, anytime, fixed, clearFrom, differing };
}
