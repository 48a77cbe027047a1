import { Router } from 'express';
import { CaptureProblem, isSandboxed, type DrawnSight } from '@upper-veneer/browser';
import { SightRequest, VisitStepBody, type BrowserDocument, type SightDocument } from '@upper-veneer/contract';
import { message, stepProblem } from '@upper-veneer/core';
import { HttpProblem, readBody } from '../http/problem.js';
import type { Visiting } from '../visits/visiting.js';

export interface VisitRouteOptions {
  readonly visiting: Visiting;
  /** Address of the demo's own live pages; empty where none are served. */
  readonly example: string;
}

/** Pages as a visitor's browser has them, looked at and pointed into. */
export function visitRoutes({ visiting, example }: VisitRouteOptions): Router {
  const router = Router();
  const keyOf = (text: string | string[] | undefined): string => {
    if (typeof text !== 'string' || !/^[a-z0-9-]{8,60}$/i.test(text))
      throw new HttpProblem(404, 'refused.not-found', message('refusal.no-page'));
    return text;
  };
  router.get('/browser', (_request, response) => {
    visiting.prepare();
    const answer: BrowserDocument = {
      program: visiting.program(),
      isSandboxed: isSandboxed(),
      example,
    };
    response.json(answer);
  });
  router.put('/sights/:key', async (request, response) => {
    const key = keyOf(request.params.key);
    const { address, width } = readBody(SightRequest, request.body);
    response.on('close', () => {
      // Nobody waits for it any more.
      if (!response.writableFinished) void visiting.close(key);
    });
    response.json(described(await visiting.look(key, address, width)));
  });
  router.post('/sights/:key/steps', async (request, response) => {
    const step = readBody(VisitStepBody, request.body);
    const problem = stepProblem(step);
    if (problem) throw new CaptureProblem('step-failed', message('capture.the-step', { problem }));
    response.json(described(await visiting.act(keyOf(request.params.key), step)));
  });
  router.delete('/sights/:key', async (request, response) => {
    await visiting.close(keyOf(request.params.key));
    response.status(204).end();
  });
  return router;
}

function described({ picture, ...sight }: DrawnSight): SightDocument {
  return { ...sight, picture: `data:image/jpeg;base64,${Buffer.from(picture).toString('base64')}` };
}
