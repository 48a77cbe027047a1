import { message } from '@upper-veneer/core';
import type { NextFunction, Request, Response } from 'express';
import { HttpProblem } from './problem.js';

const LOCAL_NAMES = new Set(['localhost', '127.0.0.1', '[::1]']);

/** Refuses requests that another site's page sent, or that came under a foreign name (DNS rebinding). */
export function localOnly(allowedHosts: readonly string[]) {
  const isAllowed = (host: string): boolean => LOCAL_NAMES.has(host) || allowedHosts.includes(host);
  return (request: Request, _response: Response, next: NextFunction): void => {
    const host = (request.headers.host ?? '').replace(/:\d+$/, '');
    if (!isAllowed(host)) throw new HttpProblem(403, 'refused.refused', message('refusal.other-host', { host }));
    const { origin } = request.headers;
    if (
      origin !== undefined &&
      request.method !== 'GET' &&
      (origin === 'null' || origin !== `${request.protocol}://${request.headers.host}`)
    )
      throw new HttpProblem(403, 'refused.refused', message('refusal.other-site'));
    next();
  };
}
