import { ChangeDetectionStrategy, Component, input } from '@angular/core';

/** An icon of one path, in the colour of the text around it; what it stands for is said by its button. */
@Component({
  selector: 'uv-icon',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { 'aria-hidden': 'true' },
  template: `<svg viewBox="0 0 24 24" [attr.width]="size()" [attr.height]="size()"><path fill="currentColor" [attr.d]="path()" /></svg>`,
  styles: `
    :host { display: inline-flex; }
  `,
})
export class Icon {
  /** SVG path data on a field of 24 x 24. */
  readonly path = input.required<string>();
  /** Width and height, CSS px. */
  readonly size = input(17);
}
