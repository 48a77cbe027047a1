import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, signal } from '@angular/core';
import { colorOfCss, notationsOf } from '@upper-veneer/core';

const COPIED_MS = 1400;

/** A colour as hex, rgb, hsl and oklch, each copied with one press. */
@Component({
  selector: 'uv-notations',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (notation of notations(); track notation.name) {
      <button
        type="button" class="uv-mono" [title]="wordsOf('screen.copy', { css: notation.css })"
        (click)="copy(notation.css)">{{ copied() === notation.css ? wordsOf('screen.copied') : notation.css }}</button>
    }
  `,
  styles: `
    :host { display: flex; flex-wrap: wrap; gap: 3px 6px; min-width: 0; }
    button { padding: 1px 6px; border: 1px solid var(--uv-line); border-radius: 3px; background: var(--uv-paper); font-size: 12px; cursor: copy; white-space: nowrap; }
    button:hover { border-color: var(--uv-ink); }
  `,
})
export class Notations {
  protected readonly wordsOf = wordsOf;

  readonly css = input.required<string>();

  protected readonly copied = signal('');
  protected readonly notations = computed(() => {
    const color = colorOfCss(this.css());
    return color ? notationsOf(color) : [];
  });

  protected copy(css: string): void {
    void navigator.clipboard.writeText(css).then(() => {
      this.copied.set(css);
      setTimeout(() => this.copied.set(''), COPIED_MS);
    });
  }
}
