import { errorText, spoken, wordsOf } from '@upper-veneer/words';
import { HttpErrorResponse } from '@angular/common/http';
import type { FieldError, ProblemDocument } from '@upper-veneer/contract';

/** A request that failed, with a message fit to show. */
export class ApiProblem extends Error {
  override readonly name = 'ApiProblem';

  constructor(
    readonly title: string,
    detail: string,
    readonly errors: readonly FieldError[] = [],
    readonly isLost = false,
    /** Which problem it is, by the server's word for it; empty where the status says all. */
    readonly type = '',
  ) {
    super(detail);
  }

  /** Reads the server's problem document, or says that nobody answered; what failed here, in the worker say, is told as that. */
  static from(error: unknown): ApiProblem {
    if (error instanceof ApiProblem) return error;
    if (error instanceof HttpErrorResponse && error.status > 0) {
      const problem = readProblem(error.error);
      if (problem) return ApiProblem.of(problem);
      return new ApiProblem(wordsOf('screen.server-refused'), wordsOf('screen.answered', { status: error.status }));
    }
    if (!(error instanceof HttpErrorResponse))
      return new ApiProblem(
        wordsOf('screen.something-could-not-be'),
        wordsOf('screen.what-shown-may-miss', { error: errorText(error) }),
      );
    return ApiProblem.lost();
  }

  /** In the language that is spoken; in the server's words where it tells what is not known here. */
  static of({ title, detail = '', errors = [], type, told }: ProblemDocument): ApiProblem {
    const said: { readonly title?: unknown; readonly detail?: unknown } = told ? spoken(told) : {};
    return new ApiProblem(
      typeof said.title === 'string' ? said.title : title,
      typeof said.detail === 'string' ? said.detail : detail,
      errors,
      false,
      type,
    );
  }

  /** Nobody answered. */
  static lost(): ApiProblem {
    return new ApiProblem(
      wordsOf('screen.server-does-not-answer'),
      wordsOf('screen.nothing-was-changed-start'),
      [],
      true,
    );
  }
}

function readProblem(body: unknown): ProblemDocument | null {
  let value = body;
  if (typeof value === 'string') {
    try {
      value = JSON.parse(value);
    } catch {
      return null;
    }
  }
  return typeof value === 'object' && value !== null && 'title' in value ? (value as ProblemDocument) : null;
}
