import type { Kit, KitFit, LaidKit } from '@upper-veneer/core';

/** What the worker answers of kits. */
export interface KitApi {
  /** A part's overrides as a kit; `null` where it has none. */
  makeKit(partId: number, name: string, madeOn: string): Kit | null;
  /** How far kits are known again here. */
  kitFits(kits: readonly Kit[]): readonly KitFit[];
  /** A kit laid on the site; `null` when it was stopped. */
  layKit(
    kit: Kit,
    onProgress: (progress: { readonly done: number; readonly total: number }) => void,
  ): Promise<LaidKit | null>;
  stopKit(): void;
}
