import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { Palette, SeenPalette, Vision } from '@upper-veneer/core';
import { Slider } from 'primeng/slider';

/** The swatches as people with colour-vision deficiencies see them, and which of them come together. */
@Component({
  selector: 'uv-other-eyes',
  imports: [FormsModule, Slider],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header><h2 i18n>As other eyes see it</h2><span class="uv-soft" title="Machado, Oliveira, Fernandes 2009" i18n-title><ng-container i18n>severity </ng-container><p-slider [min]="0" [max]="1" [step]="0.05" [ngModel]="severity()" (ngModelChange)="severityChange.emit($event)" ariaLabel="Severity of the deficiency" i18n-ariaLabel /> {{ severity().toFixed(2) }}</span></header>
    <div class="row">
      <span class="uv-soft" i18n>as it is</span>
      @for (swatch of palette().swatches; track swatch.id) {
        <i [style.background]="swatch.css" [title]="swatch.name"></i>
      }
    </div>
    @for (row of seen(); track row.vision) {
      <div class="row">
        <span class="uv-soft">{{ visionWords(row.vision) }}</span>
        @for (hex of row.hexes; track $index) {
          <i [style.background]="hex" [title]="hex"></i>
        }
      </div>
    }
    @if (merging(); as text) { <p class="uv-soft">{{ text }}</p> }
  `,
  styles: `
    header { display: flex; justify-content: space-between; align-items: baseline; margin-bottom: 6px; }
    h2 { font-weight: 700; }
    header span, p { font-size: 12px; }
    header span { display: flex; align-items: center; gap: 12px; }
    p-slider { width: 110px; }
    p { margin-top: 5px; }
    .row { display: grid; grid-template-columns: 92px; grid-auto-flow: column; grid-auto-columns: minmax(0, 1fr); height: 18px; font-size: 12px; line-height: 18px; }
  `,
})
export class OtherEyes {
  readonly palette = input.required<Palette>();
  readonly seen = input.required<readonly SeenPalette[]>();
  /** Of the deficiencies, 0–1. */
  readonly severity = input(1);
  readonly severityChange = output<number>();

  protected readonly merging = computed(() =>
    this.seen()
      .flatMap(({ vision, merging }) =>
        merging.map(({ a, b, deltaE }) =>
          wordsOf('palette.come-within-e-for', { a, b, deltaE: deltaE.toFixed(1), vision: this.visionWords(vision) }),
        ),
      )
      .join(' · '),
  );

  protected visionWords(vision: Vision): string {
    return wordsOf(`vision.${vision}`);
  }
}
