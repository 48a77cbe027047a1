import { say, type Code } from '@upper-veneer/words';
import { message, type Message } from '@upper-veneer/core';
import type { NextFunction, Request, Response } from 'express';
import {
  PROBLEM_MEDIA_TYPE,
  STEP_FAILED,
  validateBody,
  type FieldError,
  type ProblemDocument,
} from '@upper-veneer/contract';
import { CaptureProblem } from '@upper-veneer/browser';
import type { Refusal } from './refusal.js';
import { WorkError } from '../work/work-pool.js';

/** A request that is refused, with a message fit to show. */
export class HttpProblem extends Error {
  override readonly name = 'HttpProblem';

  constructor(
    readonly status: number,
    readonly title: Code,
    /** What and where; a text where others said it. */
    readonly detail: Message | string,
    readonly errors: readonly Refusal[] = [],
  ) {
    super(say(detail));
  }
}

/** There is no site of this number. */
export function noSite(site: number): HttpProblem {
  return new HttpProblem(404, 'refused.not-found', message('refusal.no-site', { site }));
}

/** Body of a request as its class has it. @throws {HttpProblem} 422 naming the fields and reasons. */
export function readBody<T extends object>(type: new () => T, body: unknown): T {
  const result = validateBody(type, body);
  if (result.ok) return result.value;
  const [first] = result.errors;
  throw new HttpProblem(
    422,
    'refused.not-stored',
    first ? message('refusal.field', { field: first.field || 'body', reason: first.reason }) : message('refusal.body'),
    result.errors,
  );
}

/** Whole number in a path. @throws {HttpProblem} 404. */
export function readId(text: string | string[] | undefined): number {
  if (typeof text !== 'string' || !/^\d{1,12}$/.test(text))
    throw new HttpProblem(404, 'refused.not-found', message('refusal.no-such', { text: String(text) }));
  return Number(text);
}

/** Answers every error as a problem document (RFC 9457); the text of unforeseen ones stays in the log. */
export function problemHandler(log: (error: unknown) => void) {
  return (error: unknown, _request: Request, response: Response, next: NextFunction): void => {
    if (response.headersSent) {
      next(error);
      return;
    }
    const problem = toProblem(error);
    if (problem.status >= 500) log(error);
    response.status(problem.status).type(PROBLEM_MEDIA_TYPE).send(JSON.stringify(problem));
  };
}

/** Whether the disk has no more room. Sources: https://www.sqlite.org/rescode.html#full, errno ENOSPC. */
function isFull(error: unknown): boolean {
  return (
    error instanceof Error && 'code' in error && /^(?:SQLITE_FULL|SQLITE_IOERR_WRITE|ENOSPC)$/.test(String(error.code))
  );
}

const IMPORT_STATUS: Readonly<Partial<Record<CaptureProblem['code'], number>>> = {
  'too-large': 413,
  'too-many': 413,
  busy: 503,
  'no-browser': 503,
};
const CAPTURE_TITLE: Readonly<Partial<Record<CaptureProblem['code'], Code>>> = {
  stopped: 'refused.stopped',
  'no-browser': 'refused.no-browser',
  'step-failed': 'refused.not-done',
  closed: 'refused.not-open',
};

/** An error as a problem document; what was not foreseen says nothing of itself. */
export function toProblem(error: unknown): ProblemDocument {
  if (error instanceof HttpProblem) {
    const { status, title, detail, errors } = error;
    return { ...problemOf(status, title, detail), ...(errors.length > 0 ? { errors: errors.map(worded) } : {}) };
  }
  if (error instanceof CaptureProblem)
    return {
      ...problemOf(IMPORT_STATUS[error.code] ?? 422, CAPTURE_TITLE[error.code] ?? 'refused.not-brought-in', error.told),
      ...(error.code === 'step-failed' ? { type: STEP_FAILED } : {}),
    };
  if (error instanceof WorkError && error.fault !== 'failed')
    return problemOf(503, error.fault === 'stopped' ? 'refused.stopped' : 'refused.not-done', error.told);
  const known = error as { status?: number; type?: string };
  if (known.type === 'entity.parse.failed') return problemOf(400, 'refused.not-stored', message('refusal.no-json'));
  if (known.type === 'entity.too.large') return problemOf(413, 'refused.not-stored', message('refusal.body-too-large'));
  if (typeof known.status === 'number' && known.status >= 400 && known.status < 500)
    return problemOf(known.status, 'refused.refused', message('refusal.request-unreadable'));
  if (isFull(error)) return problemOf(507, 'refused.not-stored', message('refusal.disk-full'));
  return problemOf(500, 'refused.failed', message('refusal.failed'));
}

function worded({ field, reason }: Refusal): FieldError {
  return { field, reason: say(reason) };
}

/** In the words of this process, and as what is told, for whoever speaks another language. */
function problemOf(status: number, code: Code, detail: Message | string): ProblemDocument {
  const title = message(code);
  return { type: 'about:blank', title: say(title), status, detail: say(detail), told: { title, detail } };
}
