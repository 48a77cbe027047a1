import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import type { OverrideState } from '@upper-veneer/core';
import type { ExplanationView } from '../../shared/engine/engine-api';
import { ColorChip } from '../../shared/ui/color-chip';
import { PictureContrast } from '../verdict/picture-contrast';

const COPIED_MS = 1400;

/** The colour of the chosen cell as it reaches the eye, alpha and opacity worked in; over a picture from its darkest to its lightest. */
@Component({
  selector: 'uv-as-painted',
  imports: [ColorChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (hex of hexes(); track hex) {
      <button
        type="button" class="uv-mono" [title]="title()" [attr.aria-label]="wordsOf('bench.copy-as-painted', { hex: hex })"
        (click)="copy(hex)"
      ><uv-color-chip [color]="hex" /> {{ copied() === hex ? wordsOf('bench.copied') : hex }}</button>
    }
  `,
  styles: `
    :host { display: inline-flex; gap: 8px; }
    button { display: inline-flex; align-items: center; gap: 5px; min-height: 24px; padding: 0 2px; border: 0; background: none; color: inherit; font-size: 12px; cursor: copy; }
  `,
})
export class AsPaintedColor {
  protected readonly wordsOf = wordsOf;

  readonly #contrast = inject(PictureContrast);
  readonly explanation = input.required<Spoken<ExplanationView> | null>();
  readonly state = input.required<OverrideState>();
  /** Whether it is the colour of text, which may stand over a picture. */
  readonly isText = input(false);

  protected readonly copied = signal('');
  readonly #range = computed(() => (this.isText() ? this.#contrast.found()[this.state()]?.range : undefined));
  protected readonly hexes = computed(() => {
    const painted = this.explanation()?.painted;
    return painted ? [...new Set(this.#range() ?? [painted.hex])] : [];
  });
  protected readonly title = computed(() => {
    const painted = this.explanation()?.painted;
    if (!painted) return '';
    if (this.#range()) return wordsOf('bench.as-painted-over-picture');
    const doubts = painted.doubts.length > 0 ? wordsOf('bench.uncertain', { doubts: painted.doubts.join('; ') }) : '';
    return wordsOf('bench.as-painted-over-press', { on: painted.on, doubts });
  });

  protected copy(hex: string): void {
    void navigator.clipboard.writeText(hex).then(() => {
      this.copied.set(hex);
      setTimeout(() => this.copied.set(''), COPIED_MS);
    });
  }
}
