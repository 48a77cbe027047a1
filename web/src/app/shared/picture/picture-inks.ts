import { EnvironmentInjector, Injectable, createEnvironmentInjector, inject } from '@angular/core';
import { SiteStore } from '../site/site-store';
import type { LogoFigure, PictureInk } from './picture-api';
import { PictureDesk } from './picture-desk';

/** What is known of one picture file. */
export interface FileInks {
  readonly inks: readonly PictureInk[];
  /** How it shows on each ground asked about. */
  readonly figures: readonly LogoFigure[];
  /** Why nothing is known; empty otherwise. */
  readonly problem: string;
}

/** Reads the inks of the site's picture files one after the other; those read once are kept. */
@Injectable({ providedIn: 'root' })
export class PictureInks {
  readonly #site = inject(SiteStore);
  /** A desk of its own: others hold the picture somebody looks at. */
  readonly #desk = createEnvironmentInjector([PictureDesk], inject(EnvironmentInjector)).get(PictureDesk);
  readonly #known = new Map<string, FileInks>();
  #last: Promise<unknown> = Promise.resolve();

  /** @param grounds hexes it is laid over; none where only its inks are wanted. */
  read(path: string, grounds: readonly string[]): Promise<FileInks> {
    // A site captured again may have another file there.
    const key = JSON.stringify([this.#site.site()?.id, this.#site.draft()?.structure, path, grounds]);
    const known = this.#known.get(key);
    if (known) return Promise.resolve(known);
    // The desk holds one picture at a time.
    const next = this.#last.then(async () => {
      await this.#desk.openStored(path);
      const problem = this.#desk.problem();
      const read: FileInks = {
        inks: (problem === '' && this.#desk.inks()?.inks) || [],
        figures: problem === '' && grounds.length > 0 ? await this.#desk.remote.logoOn(grounds) : [],
        problem,
      };
      this.#known.set(key, read);
      return read;
    });
    this.#last = next.catch(() => undefined);
    return next;
  }
}
