import { spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { brandStandingOf, colorOfCss, type Palette } from '@upper-veneer/core';

/** The brand colour nearest to a colour that was met, and how far it lies. */
@Component({
  selector: 'uv-nearest-brand',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `{{ words() }}`,
  styles: `:host { color: var(--uv-soft); font-size: 12px; }`,
})
export class NearestBrand {
  readonly css = input.required<string>();
  readonly palette = input.required<Palette>();

  protected readonly words = computed(() => {
    const color = colorOfCss(this.css());
    if (!color || this.palette().swatches.length === 0) return '';
    const { kind, nearest, deltaE } = spoken(brandStandingOf(color, this.palette()));
    return kind === 'brand'
      ? wordsOf('screen.brand-colour', { nearest })
      : wordsOf('screen.nearest-e', { nearest, deltaE: deltaE.toFixed(1) });
  });
}
