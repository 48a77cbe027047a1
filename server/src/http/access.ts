import { message } from '@upper-veneer/core';
import { createHash, timingSafeEqual } from 'node:crypto';
import express, { Router, type Request, type Response } from 'express';
import { HttpProblem } from './problem.js';

const COOKIE = 'uv-access';
/** How long one stays signed in, ms. */
const LASTS_MS = 30 * 24 * 3600 * 1000;
/** How long a wrong token holds up the next, ms: tokens are looked at one after another, so that guessing takes years. */
const WAIT_MS = 700;
/** Tokens that may wait to be looked at. */
const MOST_WAITING = 20;

/** Lets in who has shown the token once, by one page that asks for it; there are no accounts. @param waitMs how long a wrong token holds up the next. */
export function accessOnly(token: string, waitMs = WAIT_MS): Router {
  const ticket = digest(`ticket ${token}`).toString('base64url');
  const router = Router();
  let waiting = 0;
  let turn = Promise.resolve();
  router.post('/sign-in', express.urlencoded({ extended: false, limit: '2kb' }), async (request, response) => {
    if (waiting >= MOST_WAITING)
      throw new HttpProblem(429, 'refused.not-signed-in', message('refusal.too-many-tokens'));
    const given = (request.body as { token?: unknown } | undefined)?.token;
    const isRight = typeof given === 'string' && isEqual(given.trim(), token);
    waiting += 1;
    turn = turn.then(() => (isRight ? undefined : new Promise((done) => setTimeout(done, waitMs))));
    await turn;
    waiting -= 1;
    if (isRight)
      response
        .cookie(COOKIE, ticket, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: LASTS_MS })
        .redirect(303, '/');
    else ask(response, 'That is not the token.');
  });
  router.use((request, response, next) => {
    const shown = ticketOf(request);
    if (shown !== '' && isEqual(shown, ticket)) next();
    else if (request.method === 'GET' && request.accepts(['json', 'html']) === 'html') ask(response, '');
    else throw new HttpProblem(401, 'refused.not-signed-in', message('refusal.no-token'));
  });
  return router;
}

function ticketOf(request: Request): string {
  for (const pair of (request.headers.cookie ?? '').split(';')) {
    const at = pair.indexOf('=');
    if (at !== -1 && pair.slice(0, at).trim() === COOKIE) return pair.slice(at + 1).trim();
  }
  return '';
}

/** Compares without telling by its time how much is equal. */
function isEqual(a: string, b: string): boolean {
  return timingSafeEqual(digest(a), digest(b));
}

function digest(text: string): Buffer {
  return createHash('sha256').update(text).digest();
}

function ask(response: Response, problem: string): void {
  response
    .status(401)
    .set({
      'cache-control': 'no-store',
      'content-security-policy':
        "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; frame-ancestors 'none'; base-uri 'none'",
      'x-content-type-options': 'nosniff',
    })
    .type('html').send(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Sign in · Upper Veneer</title><style>
:root { color-scheme: light dark } body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: light-dark(#e4e4e4, #1b1b1b); color: light-dark(#111, #eee); font: 16px/1.45 sans-serif }
main { box-sizing: border-box; width: min(420px, 100vw); padding: 28px } h1 { margin: 0 0 8px; font-size: 21px } p { margin: 0 0 18px } label { display: block; margin: 0 0 6px; font-weight: 600 }
input, button { box-sizing: border-box; width: 100%; height: 44px; padding: 0 12px; border: 1px solid currentColor; border-radius: 3px; font: inherit } button { margin-top: 14px; background: light-dark(#111, #eee); color: light-dark(#fff, #111); font-weight: 600; cursor: pointer }
:focus-visible { outline: 3px solid currentColor; outline-offset: 3px } .problem { font-weight: 600 }
</style></head><body><main><h1>Upper Veneer</h1><p>This one is open to other machines. Its token was printed where it was started.</p>
<form method="post" action="/sign-in">${problem === '' ? '' : `<p class="problem" role="alert" id="problem">▲ ${problem}</p>`}<label for="token">Token</label><input id="token" name="token" type="password" autocomplete="current-password" required autofocus${problem === '' ? '' : ' aria-describedby="problem" aria-invalid="true"'}><button>Sign in</button></form></main></body></html>`);
}
