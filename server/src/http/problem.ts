import type { NextFunction, Request, Response } from 'express';
import {
  PROBLEM_MEDIA_TYPE,
  STEP_FAILED,
  validateBody,
  type FieldError,
  type ProblemDocument,
} from '@upper-veneer/contract';
import { CaptureProblem } from '@upper-veneer/browser';
import { WorkError } from '../work/work-pool.js';

/** A request that is refused, with a message fit to show. */
export class HttpProblem extends Error {
  override readonly name = 'HttpProblem';

  constructor(
    readonly status: number,
    readonly title: string,
    detail: string,
    readonly errors: readonly FieldError[] = [],
  ) {
    super(detail);
  }
}

/** Body of a request as its class has it. @throws {HttpProblem} 422 naming the fields and reasons. */
export function readBody<T extends object>(type: new () => T, body: unknown): T {
  const result = validateBody(type, body);
  if (result.ok) return result.value;
  const [first] = result.errors;
  throw new HttpProblem(
    422,
    'Not stored',
    first ? `${first.field || 'body'} ${first.reason}` : 'The body is not valid',
    result.errors,
  );
}

/** Whole number in a path. @throws {HttpProblem} 404. */
export function readId(text: string | string[] | undefined, what: string): number {
  if (typeof text !== 'string' || !/^\d{1,12}$/.test(text))
    throw new HttpProblem(404, 'Not found', `There is no ${what} "${String(text)}"`);
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
const CAPTURE_TITLE: Readonly<Partial<Record<CaptureProblem['code'], string>>> = {
  stopped: 'Stopped',
  'no-browser': 'No browser',
  'step-failed': 'Not done',
  closed: 'Not open any more',
};

/** An error as a problem document; what was not foreseen says nothing of itself. */
export function toProblem(error: unknown): ProblemDocument {
  if (error instanceof HttpProblem) {
    return {
      type: 'about:blank',
      title: error.title,
      status: error.status,
      detail: error.message,
      ...(error.errors.length > 0 ? { errors: error.errors } : {}),
    };
  }
  if (error instanceof CaptureProblem)
    return {
      type: error.code === 'step-failed' ? STEP_FAILED : 'about:blank',
      title: CAPTURE_TITLE[error.code] ?? 'Not brought in',
      status: IMPORT_STATUS[error.code] ?? 422,
      detail: error.message,
    };
  if (error instanceof WorkError && error.fault !== 'failed')
    return {
      type: 'about:blank',
      title: error.fault === 'stopped' ? 'Stopped' : 'Not done',
      status: 503,
      detail: error.message,
    };
  const known = error as { status?: number; type?: string };
  if (known.type === 'entity.parse.failed')
    return { type: 'about:blank', title: 'Not stored', status: 400, detail: 'The body is not JSON' };
  if (known.type === 'entity.too.large')
    return { type: 'about:blank', title: 'Not stored', status: 413, detail: 'The body is larger than 2 MB' };
  if (typeof known.status === 'number' && known.status >= 400 && known.status < 500)
    return { type: 'about:blank', title: 'Refused', status: known.status, detail: 'The request cannot be read' };
  if (isFull(error))
    return {
      type: 'about:blank',
      title: 'Not stored',
      status: 507,
      detail:
        'The disk of the server is full. Nothing of this was stored, everything stored before is kept; make room and try again',
    };
  return {
    type: 'about:blank',
    title: 'Something failed on our side',
    status: 500,
    detail: 'The server could not do this; nothing was changed',
  };
}
