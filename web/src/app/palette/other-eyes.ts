import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Palette, SeenPalette } from '@upper-veneer/core';

/** The swatches as people with colour-vision deficiencies see them, and which of them come together. */
@Component({
  selector: 'uv-other-eyes',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2>As other eyes see it</h2><span class="uv-soft" title="Machado, Oliveira, Fernandes 2009, severity 1.0">pairs under ΔE 6 are named</span></header>
    <div class="row"><span class="uv-soft">as it is</span>@for (swatch of palette().swatches; track swatch.id) { <i [style.background]="swatch.css" [title]="swatch.name"></i> }</div>
    @for (row of seen(); track row.vision) {
      <div class="row"><span class="uv-soft">{{ row.vision }}</span>@for (hex of row.hexes; track $index) { <i [style.background]="hex" [title]="hex"></i> }</div>
    }
    @if (merging(); as text) { <p class="uv-soft">{{ text }}</p> }
  `,
  styles: `
    header { display: flex; justify-content: space-between; align-items: baseline; margin-bottom: 6px; }
    h2 { font-weight: 700; }
    header span, p { font-size: 12px; }
    p { margin-top: 5px; }
    .row { display: grid; grid-template-columns: 92px; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); height: 18px; font-size: 12px; line-height: 18px; }
  `,
})
export class OtherEyes {
  readonly palette = input.required<Palette>();
  readonly seen = input.required<readonly SeenPalette[]>();

  protected readonly merging = computed(() => this.seen().flatMap(({ vision, merging }) => merging.map(({ a, b, deltaE }) => `${a} and ${b} come within ΔE ${deltaE.toFixed(1)} for ${vision}`)).join(' · '));
}
