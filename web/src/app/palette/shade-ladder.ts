import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import {
  colorOfCss,
  contrastRatio,
  hexOf,
  shade,
  type Palette,
  type RoleName,
  type Swatch,
  colorOfValue,
} from '@upper-veneer/core';
import { roleWords } from '../shared/site/role-words';

/** Lightness points of the ladder's steps; the ones for hover and for pressed are marked. */
const STEPS = [32, 24, 16, 8, 0, -6, -12, -18, -24, -30] as const;
const MARKS: Readonly<Record<number, string>> = {
  0: wordsOf('palette.swatch'),
  [-6]: wordsOf('palette.hover'),
  [-12]: wordsOf('palette.pressed'),
};
const PARTNERS: Readonly<Partial<Record<RoleName, RoleName>>> = {
  accent: 'on-accent',
  second: 'on-second',
  signal: 'on-signal',
};

/** A swatch's shades in OKLCH, each with its contrast against the role it meets. */
@Component({
  selector: 'uv-shade-ladder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ol>@for (step of steps(); track step.shade) {
      <li [class.own]="step.shade === 0">
        <span class="tone" [style.background]="step.hex" [style.color]="partner().hex" [title]="wordsOf('palette.ratio-with', { hex: step.hex, ratio: step.ratio.toFixed(2), name: partner().name })" data-sample="Aa"></span>
        <span>{{ shown(step.ratio) }}</span><span class="uv-soft">{{ step.mark }}</span>
      </li>
    }</ol>
    <p class="uv-soft" i18n>Lightness steps in OKLCH that hold the hue, in sRGB; contrast with {{ partner().name }}.</p>
  `,
  styles: `
    ol { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); margin: 0; padding: 0; list-style: none; background: var(--uv-paper); border: 1px solid var(--uv-line-strong); border-bottom-width: 4px; }
    li { display: grid; padding-bottom: 3px; font-size: 12.5px; line-height: 1.35; }
    li > span:not(.tone) { padding-left: 8px; min-height: 17px; }
    .tone { display: flex; align-items: end; height: 46px; padding: 0 8px 5px; font-weight: 700; }
    .tone::before { content: attr(data-sample); }
    li.own { outline: 2px solid var(--uv-ink); outline-offset: -1px; }
    p { margin-top: 4px; font-size: 12px; }
    @media (max-width: 520px) { ol { grid-auto-flow: row; grid-template-columns: repeat(5, minmax(0, 1fr)); } }
  `,
})
export class ShadeLadder {
  protected readonly wordsOf = wordsOf;

  readonly swatch = input.required<Swatch>();
  readonly palette = input.required<Palette>();

  /** The role this swatch meets: the one that goes on it, else the ground. */
  protected readonly partner = computed(() => {
    const roles = this.palette()
      .roles.filter(({ swatchId }) => swatchId === this.swatch().id)
      .map(({ role }) => role);
    const partner = roles.map((role) => PARTNERS[role]).find((role) => role !== undefined) ?? 'ground';
    const color = colorOfValue({ kind: 'role', role: partner, shade: 0 }, this.palette());
    return color
      ? { name: roleWords(partner), color, hex: hexOf(color) }
      : { name: wordsOf('palette.white'), color: WHITE, hex: '#ffffff' };
  });
  protected readonly steps = computed(() => {
    const color = colorOfCss(this.swatch().css);
    return color
      ? STEPS.map((points) => {
          const step = shade(color, points);
          return {
            shade: points,
            hex: hexOf(step),
            ratio: contrastRatio(step, this.partner().color),
            mark: MARKS[points] ?? '',
          };
        })
      : [];
  });

  protected shown(ratio: number): string {
    return (Math.floor(ratio * 10) / 10).toFixed(1);
  }
}

const WHITE = { space: 'legacy', channels: [1, 1, 1], alpha: 1 } as const;
