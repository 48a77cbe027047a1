import { Injectable } from '@angular/core';
import { wrap, type Remote } from 'comlink';
import type { EngineApi } from './engine-api';

/** The worker in which pages are parsed and resolved. */
@Injectable({ providedIn: 'root' })
export class Engine {
  readonly remote: Remote<EngineApi> = wrap<EngineApi>(new Worker(new URL('./engine.worker', import.meta.url), { type: 'module' }));
}
