import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  computed,
  effect,
  inject,
  resource,
  viewChildren,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { GROUND_ROLES, ROLE_NAMES, colorOfValue, hexOf, logoStanding, type RoleName } from '@upper-veneer/core';
import { Select } from 'primeng/select';
import { PictureDesk } from '../shared/picture/picture-desk';
import { SiteStore } from '../shared/site/site-store';
import { StandingMark } from '../shared/ui/standing-mark';
import { roleWords } from '../shared/site/role-words';

/** The logo over each ground it may come to stand on, with the share of its ink that is lost there. */
@Component({
  selector: 'uv-logo-grounds',
  imports: [FormsModule, Select, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>Logo on grounds</h2><p-select [options]="$any(pictures())" optionLabel="path" optionValue="path" [ngModel]="desk.picture()?.name ?? null" (ngModelChange)="desk.openStored($event)" placeholder="Choose the logo" i18n-placeholder size="small" ariaLabel="Logo" i18n-ariaLabel /></header>
    @if (desk.picture()) {
      <ul>
        @for (tile of tiles(); track tile.hex) {
          <li>
            <span class="stage" [style.background]="tile.hex"><canvas #view></canvas></span>
            <span class="text"><strong>{{ tile.names }}</strong><span class="uv-mono uv-soft">{{ tile.hex }}</span></span>
            <span class="figure" [title]="tile.words"><uv-standing [standing]="tile.standing" /> {{ tile.figure }}</span>
          </li>
        }
      </ul>
      <p class="uv-soft" i18n>Each pixel of the logo is laid over the ground and compared with it; its own opaque ground is left out. 3 : 1 is what WCAG 2.2 asks of graphics.</p>
    } @else {
      <p class="uv-soft" i18n>Choose the logo among the site’s pictures, or bring one in on the right. It is laid over every ground, and the share of its ink that is lost there is counted.</p>
    }
  `,
  styles: `
    :host { display: grid; gap: 8px; }
    header { display: flex; align-items: center; justify-content: space-between; gap: 12px; }
    h2 { font-weight: 700; }
    ul { display: grid; grid-template-columns: repeat(auto-fill, minmax(170px, 1fr)); gap: 10px; margin: 0; padding: 0; list-style: none; }
    li { display: grid; background: var(--uv-paper); border: 1px solid var(--uv-line-strong); border-bottom-width: 4px; }
    .stage { display: grid; place-items: center; height: 104px; overflow: hidden; }
    .stage canvas { max-width: 84%; max-height: 84px; }
    .text { display: flex; justify-content: space-between; gap: 8px; padding: 5px 8px 0; font-size: 12.5px; overflow: hidden; white-space: nowrap; }
    .text strong { overflow: hidden; text-overflow: ellipsis; }
    .figure { padding: 1px 8px 5px; font-size: 12.5px; }
    p { font-size: 12px; }
  `,
})
export class LogoGrounds {
  protected readonly desk = inject(PictureDesk);
  readonly #site = inject(SiteStore);

  protected readonly pictures = computed(() => this.#site.site()?.pictures ?? []);
  /** Distinct colours of the ground-like roles, and of roles that headers and footers are often filled with. */
  readonly #grounds = computed(() => {
    const byHex = new Map<string, RoleName[]>();
    for (const role of ROLE_NAMES.filter((name) => GROUND_ROLES.includes(name) || ALSO_GROUNDS.includes(name))) {
      const color = colorOfValue({ kind: 'role', role, shade: 0 }, this.#site.palette());
      if (color) byHex.set(hexOf(color), [...(byHex.get(hexOf(color)) ?? []), role]);
    }
    return byHex;
  });
  readonly #figures = resource({
    params: () => ({ picture: this.desk.picture(), inks: this.desk.inks(), hexes: [...this.#grounds().keys()] }),
    loader: ({ params: { picture, hexes } }) => (picture ? this.desk.remote.logoOn(hexes) : Promise.resolve([])),
  });
  protected readonly tiles = computed(() =>
    [...this.#grounds()].map(([hex, roles]) => {
      const found = this.#figures.hasValue() ? this.#figures.value().find(({ ground }) => ground === hex) : undefined;
      const lost = found?.lost ?? 0;
      return {
        hex,
        names: roles.map((role) => roleWords(role)).join(', '),
        standing: logoStanding(lost),
        figure: found ? wordsOf('palette.its-ink-lost', { percent: Math.round(100 * lost) }) : '…',
        words: found
          ? wordsOf('palette.ink-under-3-1', { percent: (100 * lost).toFixed(1), hex, worst: found.worst.toFixed(1) })
          : '',
      };
    }),
  );

  private readonly views = viewChildren<ElementRef<HTMLCanvasElement>>('view');

  constructor() {
    effect(() => {
      const shown = this.desk.picture()?.shown;
      if (!shown) return;
      for (const { nativeElement: canvas } of this.views()) {
        canvas.width = shown.width;
        canvas.height = shown.height;
        canvas.getContext('2d')?.drawImage(shown, 0, 0);
      }
    });
  }
}

const ALSO_GROUNDS: readonly RoleName[] = ['ink', 'link'];
