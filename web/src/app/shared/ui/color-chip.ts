import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** A small square of a colour, over a checker that shows through where it is not opaque; dashed for none. */
@Component({
  selector: 'uv-color-chip',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: '',
  host: {
    '[style.--chip]': 'color() ?? "transparent"',
    '[class.none]': 'color() === null',
    '[class.image]': 'hasImage()',
    'aria-hidden': 'true',
  },
  styles: `
    :host { display: inline-block; flex: none; width: 12px; height: 12px; border: 1px solid var(--uv-line-strong); background: linear-gradient(var(--chip), var(--chip)), repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 8px 8px; }
    :host(.none) { border-style: dashed; background: none; }
    :host(.image) { background: linear-gradient(135deg, var(--chip) 50%, var(--uv-line-strong) 50%); }
  `,
})
export class ColorChip {
  readonly color = input.required<string | null>();
  readonly hasImage = input(false);
}
