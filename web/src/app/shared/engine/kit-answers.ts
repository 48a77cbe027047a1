import { kitFit, layKitSteps, makeKit, type SiteModel } from '@upper-veneer/core';
import { inTurns } from './in-turns';
import type { KitApi } from './kit-api';

/** What the worker answers of kits, for the site it has open. */
export function kitAnswers(opened: () => SiteModel): KitApi {
  /** Counts kits laid, so that one that is stopped ends. */
  let run = 0;
  return {
    makeKit: (partId, name, madeOn) => makeKit(opened(), partId, name, madeOn),
    kitFits: (kits) => kits.map((kit) => kitFit(opened(), kit)),
    async layKit(kit, onProgress) {
      const own = (run += 1);
      return inTurns(layKitSteps(opened(), kit), () => own === run, onProgress);
    },
    stopKit() {
      run += 1;
    },
  };
}
