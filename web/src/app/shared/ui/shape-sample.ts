import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { HousePart } from '@upper-veneer/core';

/** A shape drawn small: a corner, an edge, a shadow, or letters of a family. */
@Component({
  selector: 'uv-shape-sample',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `<span translate="no" [style]="style()">{{ isType() ? 'Ag' : '' }}</span>`,
  host: { 'aria-hidden': 'true' },
  styles: `
    :host { display: inline-grid; flex: none; place-items: center; width: 34px; height: 26px; overflow: hidden; }
    span { font-size: 17px; line-height: 1; color: var(--uv-ink); }
  `,
})
export class ShapeSample {
  readonly part = input.required<HousePart>();
  readonly css = input.required<string>();

  protected readonly isType = computed(() => this.part().endsWith('family'));
  protected readonly style = computed((): Readonly<Record<string, string>> => {
    const box = { width: '30px', height: '22px', 'box-sizing': 'border-box' };
    switch (this.part()) {
      case 'corner':
        return { ...box, border: '1px solid var(--uv-ink)', 'border-radius': this.css() };
      case 'edge':
        return { ...box, border: 'solid var(--uv-ink)', 'border-width': this.css() };
      case 'shadow':
        return { width: '18px', height: '12px', background: 'var(--uv-paper)', 'box-shadow': this.css() };
      default:
        return { 'font-family': this.css() };
    }
  });
}
