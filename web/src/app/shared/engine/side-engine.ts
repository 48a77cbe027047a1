import { chosenLanguage } from '../language/chosen-language';
import { wrap, type Remote } from 'comlink';
import type { InWords } from './in-words';
import type { EngineApi } from './engine-api';

/** A worker of its own, for a site that is looked at beside the open one. */
export interface SideEngine {
  readonly remote: Remote<InWords<EngineApi>>;
  end(): void;
}

export function startSideEngine(): SideEngine {
  const worker = new Worker(new URL('./engine.worker', import.meta.url), {
    type: 'module',
    name: chosenLanguage().tag,
  });
  return { remote: wrap<InWords<EngineApi>>(worker), end: () => worker.terminate() };
}
