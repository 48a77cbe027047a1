import { type Observable, type OperatorFunction, catchError, from, of, switchMap } from 'rxjs';
import type { Engine } from './engine';

/**
 * Has each question answered by the worker. An answer to an older question never comes after one to a newer; where the
 * worker fails, that is told, `otherwise` is emitted, and the next question is asked all the same.
 *
 * @param ask gives the answer under way, or `null` for a question that needs none.
 */
export function askEngine<Question, Answer>(
  engine: Engine,
  ask: (question: Question, engine: Engine['remote']) => Promise<Answer> | null,
  otherwise: NoInfer<Answer>,
): OperatorFunction<Question, Answer> {
  return switchMap((question): Observable<Answer> => {
    const answer = ask(question, engine.remote);
    if (!answer) return of(otherwise);
    return from(answer).pipe(
      catchError((error: unknown) => {
        engine.tell(error);
        return of(otherwise);
      }),
    );
  });
}
