import { randomInt } from 'node:crypto';
import type { Request, Response } from 'express';
import type { TrialBody } from '../db/trials.js';

/** Cookie with the look a visitor was given, `7.B`, or `off`: nothing that tells one visitor from another. */
const COOKIE = 'look';
/** How long a visitor keeps a look, s. */
const LASTS = 90 * 24 * 3600;

export type RunningTrial = { readonly id: number } & TrialBody;

/** The look a visitor is given; `null` for one who opted out, who gets what is published and is not counted. */
export function lookOf(
  request: Request,
  response: Response,
  siteId: number,
  trial: RunningTrial,
): TrialBody['looks'][number] | null {
  // What is answered hangs on who asks.
  response.set('vary', 'cookie, sec-gpc, dnt');
  const cookie = cookieIn(request.headers.cookie ?? '');
  if (cookie === 'off' || request.headers['sec-gpc'] === '1' || request.headers['dnt'] === '1') return null;
  const [trialId, name] = (cookie ?? '').split('.');
  const known = Number(trialId) === trial.id ? trial.looks.find(({ variation }) => variation === name) : undefined;
  if (known) return known;
  const drawn = trial.looks[randomInt(trial.looks.length)];
  setCookie(response, siteId, `${trial.id}.${drawn.variation}`);
  return drawn;
}

/** Takes a visitor out of all trials, or back in. */
export function optOut(response: Response, siteId: number, isOut: boolean): void {
  setCookie(response, siteId, isOut ? 'off' : '', isOut ? 365 * 24 * 3600 : 0);
}

function setCookie(response: Response, siteId: number, value: string, lasts = LASTS): void {
  response.cookie(COOKIE, value, { path: `/${siteId}/`, sameSite: 'lax', maxAge: lasts * 1000 });
}

function cookieIn(header: string): string | null {
  const found = header
    .slice(0, 8000)
    .split(';')
    .map((pair) => pair.trim())
    .find((pair) => pair.startsWith(`${COOKIE}=`));
  return found === undefined ? null : found.slice(COOKIE.length + 1);
}
