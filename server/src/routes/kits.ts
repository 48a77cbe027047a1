import { Router } from 'express';
import { KitBody } from '@upper-veneer/contract';
import { message, OVERRIDABLE, selectorProblem } from '@upper-veneer/core';
import { HttpProblem, readBody, readId } from '../http/problem.js';
import { firstOf } from '../http/refusal.js';
import type { Store } from '../store.js';

/** Kits that are kept at most. */
const MOST_KITS = 500;

/** Kits over all sites: listed, kept, taken away; each answers with all there are. */
export function kitRoutes(store: Store, now: () => Date): Router {
  const router = Router();
  router.get('/kits', (_request, response) => {
    response.set('cache-control', 'no-store').json(store.kits.all());
  });
  router.post('/kits', (request, response) => {
    const kit = readBody(KitBody, request.body);
    const errors = [
      { field: 'root', reason: selectorProblem(kit.root) },
      ...kit.rules.flatMap(({ elements, selector, property }, i) => [
        { field: `rules.${i}.selector`, reason: selectorProblem(selector) },
        { field: `rules.${i}.elements`, reason: elements === null ? null : selectorProblem(elements) },
        {
          field: `rules.${i}.property`,
          reason: OVERRIDABLE.has(property) || property.startsWith('--') ? null : message('wrong.no-property'),
        },
      ]),
    ].flatMap(({ field, reason }) => (reason === null ? [] : [{ field, reason }]));
    if (errors.length > 0) throw new HttpProblem(422, 'refused.not-kept', firstOf(errors), errors);
    if (store.kits.count() >= MOST_KITS)
      throw new HttpProblem(409, 'refused.not-kept', message('refusal.too-many-kits', { kits: MOST_KITS }));
    store.kits.put(kit, now().toISOString());
    response.status(201).json(store.kits.all());
  });
  router.delete('/kits/:id', (request, response) => {
    if (!store.kits.drop(readId(request.params.id)))
      throw new HttpProblem(404, 'refused.not-found', message('refusal.no-kit'));
    response.json(store.kits.all());
  });
  return router;
}
