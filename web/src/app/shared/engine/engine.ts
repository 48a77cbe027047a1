import { chosenLanguage } from '../language/chosen-language';
import { errorText, wordsOf } from '@upper-veneer/words';
import { ErrorHandler, Injectable, inject, signal } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import { Messages } from '../spoken/messages';
import type { InWords } from './in-words';
import type { EngineApi, PagesRead } from './engine-api';
import { withProgress } from './with-progress';

/** A failure that comes again after so long is told again, ms. */
const TELL_AGAIN_MS = 10_000;

/** The worker in which pages are parsed and resolved. */
@Injectable({ providedIn: 'root' })
export class Engine {
  readonly #messages = inject(Messages);
  readonly #errors = inject(ErrorHandler);
  readonly #open = signal(0);
  /** Failures told just now: one that comes of many questions is told once. */
  readonly #told = new Set<string>();
  /** Questions asked and not answered yet; long counts such as the census among them. */
  readonly pending = this.#open.asReadonly();
  readonly #worker = wrap<InWords<EngineApi>>(this.#start());
  readonly remote: Remote<InWords<EngineApi>> = this.#counted(this.#worker);

  /** Says that the worker failed at something, which is no failure of the server. */
  tell(error: unknown): void {
    const words = errorText(error);
    this.#errors.handleError(error);
    if (this.#told.has(words)) return;
    this.#told.add(words);
    setTimeout(() => this.#told.delete(words), TELL_AGAIN_MS);
    this.#messages.report({
      title: wordsOf('screen.something-could-not-be'),
      message: wordsOf('screen.what-shown-may-miss-words', { words }),
      isLost: false,
    });
  }

  /** Has the pages of the open site read one by one behind all else, which counts as no question. */
  async read(onProgress: (progress: PagesRead) => void): Promise<void> {
    try {
      await withProgress(onProgress, (listener) => this.#worker.read(listener));
    } catch (error) {
      this.tell(error);
    }
  }

  #start(): Worker {
    const worker = new Worker(new URL('./engine.worker', import.meta.url), {
      type: 'module',
      name: chosenLanguage().tag,
    });
    // What fails outside of a question, as where the script does not load.
    worker.addEventListener('error', (event) =>
      this.tell(new Error(event.message || wordsOf('screen.worker-reads-pages-did'))),
    );
    return worker;
  }

  /** The same worker, its open questions counted. */
  #counted(remote: Remote<InWords<EngineApi>>): Remote<InWords<EngineApi>> {
    return new Proxy(remote, {
      get: (target, name) => {
        const act: unknown = Reflect.get(target, name);
        if (typeof act !== 'function' || typeof name === 'symbol') return act;
        return (...args: unknown[]) => {
          this.#open.update((count) => count + 1);
          const answer = (act as (...given: unknown[]) => Promise<unknown>)(...args);
          const done = (): void => this.#open.update((count) => count - 1);
          answer.then(done, done);
          return answer;
        };
      },
    });
  }
}
