import { spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, resource } from '@angular/core';
import { RouterLink } from '@angular/router';
import {
  brandStandingOf,
  colorOfCss,
  logoStanding,
  type Palette,
  type PictureFile,
  type Standing,
} from '@upper-veneer/core';
import { ColorChip } from '../shared/ui/color-chip';
import { StandingMark } from '../shared/ui/standing-mark';
import { PictureInks, type FileInks } from '../shared/picture/picture-inks';

const MOST_FILES = 8;
const MOST_INKS = 8;

/** What the scope shows and no override recolours: the inks of picture files, and of logos how they show on their real grounds. */
@Component({
  selector: 'uv-beyond-css',
  imports: [ColorChip, RouterLink, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (files().length > 0 || framed().length > 0) {
      <h2 i18n>What CSS does not recolour</h2>
      <ul>
        @for (file of rows(); track file.path) {
          <li>
            <span class="head">
              <span class="name" [title]="file.path">{{ file.name }}</span>
              <span class="uv-soft">{{ file.kind }}</span>
            </span>
            @if (file.problem) { <span class="uv-soft">{{ file.problem }}</span> }
            @else {
              <span class="inks">
                @for (ink of file.inks; track ink.hex) { <uv-color-chip [color]="ink.hex" [title]="ink.words" /> }
                <span class="uv-soft">{{ file.words }}</span>
              </span>
            }
            @for (ground of file.grounds; track $index) {
              <span class="ground">
                <uv-color-chip [color]="ground.arrived" />
                <span aria-hidden="true">→</span>
                <uv-color-chip [color]="ground.matched" />
                <span [title]="ground.basis"><uv-standing [standing]="ground.standing" /> {{ ground.figure }}</span>
              </span>
            }
            @if (file.untold) { <span class="uv-soft">{{ file.untold }}</span> }
            @if (file.strays > 0) { <a routerLink="/palette" class="uv-soft" i18n>its inks are read in the Palette</a> }
          </li>
        }
        @for (name of framed(); track name) {
          <li>
            <span class="head"><span class="name">{{ name }}</span><span class="uv-soft" i18n>framed</span></span>
            <span class="uv-soft" i18n>takes colours by its maker’s settings only</span>
          </li>
        }
      </ul>
      @if (more() > 0) { <p class="uv-soft" i18n>and {{ more() }} more files, not read</p> }
    }
  `,
  styles: `
    :host:not(:empty) { display: block; padding: 10px 14px 12px; border-bottom: 1px solid var(--uv-line-strong); font-size: 12.5px; }
    h2 { margin-bottom: 4px; font-weight: 700; font-size: 13.5px; }
    ul { display: grid; gap: 7px; margin: 0; padding: 0; list-style: none; }
    li { display: grid; gap: 3px; }
    .head { display: flex; justify-content: space-between; gap: 8px; }
    .name { min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .inks, .ground { display: flex; align-items: center; gap: 5px; min-width: 0; }
    uv-color-chip { flex: none; width: 16px; height: 14px; }
    a { display: inline-flex; align-items: center; min-height: 24px; }
  `,
})
export class BeyondCss {
  readonly #inks = inject(PictureInks);
  readonly pictures = input.required<readonly PictureFile[]>();
  readonly palette = input.required<Palette>();
  /** Names of framed parts in the scope. */
  readonly framed = input<readonly string[]>([]);

  protected readonly files = computed(() => this.pictures().slice(0, MOST_FILES));
  protected readonly more = computed(() => this.pictures().length - this.files().length);
  readonly #read = resource({
    params: () => this.files(),
    loader: async ({ params: files, abortSignal }) => {
      const read = new Map<string, FileInks>();
      for (const { path, isLogo, grounds } of files) {
        if (abortSignal.aborted) break;
        const hexes = isLogo ? [...new Set(grounds.flatMap(({ arrived, matched }) => [arrived, matched]))] : [];
        read.set(path, await this.#inks.read(path, hexes));
      }
      return read;
    },
  });
  protected readonly rows = computed(() =>
    this.files().map((file) => {
      const read = this.#read.hasValue() ? this.#read.value().get(file.path) : undefined;
      const inks = (read?.inks ?? []).flatMap(({ hex }) => {
        const color = colorOfCss(hex);
        if (!color) return [];
        const { kind, nearest, deltaE } = spoken(brandStandingOf(color, this.palette()));
        return [
          {
            hex,
            isOurs: kind === 'brand',
            words: wordsOf('match.nearest-e', { hex, nearest, deltaE: deltaE.toFixed(1) }),
          },
        ];
      });
      const strays = inks.filter(({ isOurs }) => !isOurs).length;
      return {
        path: file.path,
        name: file.path.slice(file.path.lastIndexOf('/') + 1),
        kind: `${file.isLogo ? 'logo' : 'picture'}, ${file.places}×`,
        problem: read?.problem ?? '',
        inks: inks.slice(0, MOST_INKS),
        words: !read ? wordsOf('match.reading-its-inks') : inkWords(inks.length, strays),
        strays,
        untold: file.isLogo && file.untold > 0 ? wordsOf('match.place-places-its-ground', { untold: file.untold }) : '',
        grounds: file.isLogo ? file.grounds.map((ground) => groundView(ground, read)) : [],
      };
    }),
  );
}

function inkWords(inks: number, strays: number): string {
  if (inks === 0) return wordsOf('match.no-flat-inks');
  return strays === 0 ? wordsOf('match.all-them-ours') : wordsOf('match.not-ours', { strays, inks });
}

/** How a logo shows on one of its grounds, as it arrived and as matched. */
function groundView(
  { arrived, matched, places }: PictureFile['grounds'][number],
  read: FileInks | undefined,
): {
  readonly arrived: string;
  readonly matched: string;
  readonly standing: Standing;
  readonly figure: string;
  readonly basis: string;
} {
  const [before, after] = [arrived, matched].map((hex) => read?.figures.find(({ ground }) => ground === hex));
  const lost = after?.lost ?? 0;
  const percent = (share: number | undefined): string => (share === undefined ? '…' : `${Math.round(100 * share)} %`);
  return {
    arrived,
    matched,
    standing: logoStanding(lost),
    figure: wordsOf('match.its-ink-under-3', { percent: percent(before?.lost), percent2: percent(after?.lost) }),
    basis: wordsOf('match.place-places-as-arrived', { places, arrived, matched }),
  };
}
