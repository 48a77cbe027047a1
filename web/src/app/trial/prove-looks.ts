import { say, wordsOf } from '@upper-veneer/words';
import { Injectable, inject, signal } from '@angular/core';
import type { RevisionDocument, TrialDocument, VariationProofBody } from '@upper-veneer/contract';
import { encounters, settingConflicts } from '@upper-veneer/core';
import { firstValueFrom, forkJoin } from 'rxjs';
import { SiteApi } from '../shared/api/site-api';
import { Engine } from '../shared/engine/engine';
import { withProgress } from '../shared/engine/with-progress';
import { SiteStore } from '../shared/site/site-store';

/** What of a look cannot be read or seen. */
export interface LookFails {
  readonly variation: string;
  readonly fails: readonly string[];
}

/** Proves the looks of a trial before it runs: the very sheets that are served, and the settings, on the parts they change. */
@Injectable()
export class ProveLooks {
  readonly #site = inject(SiteStore);
  readonly #api = inject(SiteApi);
  readonly #engine = inject(Engine);

  /** How far it is; `null` while nothing is proved. */
  readonly progress = signal<{ readonly variation: string; readonly share: number } | null>(null);
  /** What was found last. */
  readonly found = signal<readonly LookFails[]>([]);

  /** @returns what each came to; `null` when it was stopped or failed, which is told. */
  async prove({ looks }: TrialDocument): Promise<readonly VariationProofBody[] | null> {
    const site = this.#site.site();
    if (!site) return null;
    this.found.set([]);
    try {
      const revisions = await firstValueFrom(
        forkJoin(looks.map(({ revision }) => this.#api.revision(site.id, revision))),
      );
      const partIds = partsThatDiffer(revisions);
      const proofs: VariationProofBody[] = [];
      for (const [i, { variation, settings }] of looks.entries()) {
        this.progress.set({ variation, share: 0 });
        const proved =
          partIds.length === 0
            ? { fails: [], looks: 0, unseen: [] }
            : await withProgress(
                ({ done, of }: { readonly done: number; readonly of: number }) =>
                  this.progress.set({ variation, share: of === 0 ? 0 : done / of }),
                (listener) => this.#engine.remote.proveLook({ css: revisions[i].css, partIds }, listener),
              );
        if (!proved) return null;
        const set = settings.map(({ partId, values }) => {
          const sheet = this.#site.draft()?.settings.find((own) => own.partId === partId);
          return sheet
            ? {
                fails: settingConflicts(sheet, ({ name }) => values[name] ?? '').map(({ words }) => say(words)),
                looks: encounters(sheet).length,
              }
            : { fails: [wordsOf('trial.its-settings-sheet-gone')], looks: 0 };
        });
        const fails = [...proved.fails, ...set.flatMap((own) => own.fails)];
        this.found.update((before) => [...before, { variation, fails }]);
        proofs.push({
          variation,
          fails: fails.length,
          looks: proved.looks + set.reduce((sum, own) => sum + own.looks, 0),
          unseen: proved.unseen.map((words) => words.slice(0, 300)).slice(0, 50),
        });
      }
      return proofs;
    } catch (error) {
      this.#engine.tell(error);
      return null;
    } finally {
      this.progress.set(null);
    }
  }

  stop(): void {
    void this.#engine.remote.stopProvingLooks();
  }
}

/** Parts of which the revisions hold other overrides; `null` stands for what is in no part. */
export function partsThatDiffer(revisions: readonly RevisionDocument[]): readonly (number | null)[] {
  const [first, ...others] = revisions.map(
    ({ overrides }) => new Map(overrides.map((own) => [own.id, { partId: own.partId, text: JSON.stringify(own) }])),
  );
  const parts = new Set<number | null>();
  for (const other of others)
    for (const id of new Set([...first.keys(), ...other.keys()]))
      if (first.get(id)?.text !== other.get(id)?.text) parts.add((other.get(id) ?? first.get(id))?.partId ?? null);
  return [...parts];
}
