import { chosenLanguage } from '../language/chosen-language';
import { errorText, wordsOf } from '@upper-veneer/words';
import { Injectable, inject, signal } from '@angular/core';
import { transfer, wrap, type Remote } from 'comlink';
import { ApiProblem } from '../api/api-problem';
import { SiteStore } from '../site/site-store';
import { decodePicture, PictureProblem } from './decode-picture';
import type { PictureApi, PictureInks } from './picture-api';
import { withProgress } from '../engine/with-progress';

/** Longest side of the copy that is shown, px. */
const SHOWN_SIDE = 1600;

export interface OpenPicture {
  readonly name: string;
  readonly width: number;
  readonly height: number;
  /** A copy to show, not to read from. */
  readonly shown: ImageBitmap;
}

/** One picture on the desk: its pixels are read and counted in a worker of its own. */
@Injectable()
export class PictureDesk {
  readonly #site = inject(SiteStore);
  #remote: Remote<PictureApi> | null = null;
  #turn = 0;

  readonly picture = signal<OpenPicture | null>(null);
  readonly inks = signal<PictureInks | null>(null);
  /** How far the inks are counted, 0–1; `null` when nothing is under way. */
  readonly progress = signal<number | null>(null);
  readonly problem = signal('');

  get remote(): Remote<PictureApi> {
    return (this.#remote ??= wrap<PictureApi>(
      new Worker(new URL('./picture.worker', import.meta.url), { type: 'module', name: chosenLanguage().tag }),
    ));
  }

  /** Opens a picture file and counts its inks. */
  openFile(file: Blob, name: string): Promise<void> {
    return this.#open(name, () => decodePicture(file, name), true);
  }

  /** Opens one of the site's own pictures. */
  openStored(path: string): Promise<void> {
    const url = `/frame/sites/${this.#site.site()?.id}/files/${path.split('/').map(encodeURIComponent).join('/')}`;
    return this.#open(
      path,
      async () => {
        const response = await fetch(url);
        if (!response.ok)
          throw new PictureProblem(wordsOf('screen.cannot-be-fetched-server', { path, status: response.status }));
        return decodePicture(await response.blob(), path);
      },
      true,
    );
  }

  /** Opens a picture that was drawn here. */
  openDrawn(name: string, draw: () => Promise<ImageBitmap>): Promise<void> {
    return this.#open(name, draw, false);
  }

  stop(): void {
    this.#turn += 1;
    this.progress.set(null);
    void this.#remote?.stop();
  }

  async #open(name: string, read: () => Promise<ImageBitmap>, withInks: boolean): Promise<void> {
    this.stop();
    const turn = this.#turn;
    this.problem.set('');
    this.progress.set(0);
    try {
      const bitmap = await read();
      if (turn !== this.#turn) return;
      const { width, height, shown } = await this.remote.load(transfer(bitmap, [bitmap]), SHOWN_SIDE);
      if (turn !== this.#turn) return;
      this.inks.set(null);
      this.picture.set({ name, width, height, shown });
      if (withInks) {
        const inks = await withProgress(
          (share: number) => turn === this.#turn && this.progress.set(share),
          (listener) => this.remote.inks(listener),
        );
        if (turn === this.#turn) this.inks.set(inks);
      }
    } catch (error) {
      if (turn !== this.#turn) return;
      if (error instanceof PictureProblem) this.problem.set(error.message);
      else if (error instanceof TypeError) this.problem.set(ApiProblem.lost().message);
      else this.problem.set(errorText(error));
    }
    if (turn === this.#turn) this.progress.set(null);
  }
}
