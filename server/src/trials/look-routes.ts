import express, { Router, type NextFunction, type Request, type Response } from 'express';
import type { Store } from '../store.js';
import { createEventSink } from './event-sink.js';
import { LOOK_SCRIPT } from './look-script.js';
import { optOut } from './visitor-look.js';

export interface LookRouteOptions {
  readonly store: Pick<Store, 'trials'>;
  readonly now?: () => Date;
}

/** What the stand-in host does for a trial: the script that counts, the events it tells, and opting out. */
export function lookRoutes({ store, now = () => new Date() }: LookRouteOptions): Router {
  const router = Router();
  const sink = createEventSink(store.trials);
  router.get('/:siteId/look/count.js', (_request, response) => {
    response.set('cache-control', 'public, max-age=3600').type('text/javascript').send(LOOK_SCRIPT);
  });
  router.get(['/:siteId/look/off', '/:siteId/look/on'], (request, response) => {
    const isOut = request.path.endsWith('off');
    optOut(response, Number(request.params.siteId), isOut);
    response
      .type('text/plain')
      .send(isOut ? 'You are in no trial of this site any more.' : 'You may be in a trial of this site again.');
  });
  router.post('/:siteId/look/events', express.json({ limit: '2kb' }), async (request, response) => {
    // A page of another site has no say here.
    const from = request.headers['sec-fetch-site'];
    const event = from === undefined || from === 'same-origin' ? eventIn(request.body) : null;
    const trial = store.trials.running(Number(request.params.siteId));
    if (!event || !trial || trial.id !== event.trial || event.kind >= trial.conversions.length) {
      response.status(event && trial?.id !== event.trial ? 410 : 422).end();
      return;
    }
    if (!trial.looks.some(({ variation }) => variation === event.look)) {
      response.status(422).end();
      return;
    }
    await sink.note({
      id: event.id,
      trialId: trial.id,
      variation: event.look,
      kind: event.kind,
      day: now().toISOString().slice(0, 10),
    });
    response.status(204).end();
  });
  router.use('/:siteId/look', (error: unknown, _request: Request, response: Response, next: NextFunction) => {
    if (response.headersSent) next(error);
    else response.status(typeof error === 'object' && error && 'status' in error ? Number(error.status) : 503).end();
  });
  return router;
}

interface Told {
  readonly id: string;
  readonly trial: number;
  readonly look: string;
  readonly kind: number;
}

function eventIn(body: unknown): Told | null {
  if (typeof body !== 'object' || body === null) return null;
  const { id, trial, look, kind } = body as Record<string, unknown>;
  const isOne =
    typeof id === 'string' &&
    /^[0-9a-f]{32}$/.test(id) &&
    Number.isSafeInteger(trial) &&
    typeof look === 'string' &&
    /^[A-F]$/.test(look) &&
    Number.isSafeInteger(kind) &&
    (kind as number) >= -1 &&
    (kind as number) < 10;
  return isOne ? (body as Told) : null;
}
