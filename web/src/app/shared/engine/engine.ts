import { Injectable, signal } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { EngineApi } from './engine-api';

/** The worker in which pages are parsed and resolved. */
@Injectable({ providedIn: 'root' })
export class Engine {
  readonly #open = signal(0);
  /** Questions asked and not answered yet; long counts such as the census among them. */
  readonly pending = this.#open.asReadonly();
  readonly remote: Remote<EngineApi> = this.#counted(wrap<EngineApi>(new Worker(new URL('./engine.worker', import.meta.url), { type: 'module' })));

  /** The same worker, its open questions counted. */
  #counted(remote: Remote<EngineApi>): Remote<EngineApi> {
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
