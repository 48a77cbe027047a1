import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';

/** How far something is, in wood grain; to and fro where nobody can say. */
@Component({
  selector: 'uv-grain-bar',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'progressbar', '[attr.aria-label]': 'label()', '[attr.aria-valuenow]': 'percent()' },
  template: `<span class="uv-grain" [class.unknown]="percent() === null" [style.width.%]="percent() ?? 30"></span>`,
  styles: `
    :host { display: block; height: 9px; background: var(--uv-line); overflow: hidden; }
    span { display: block; height: 100%; }
    .unknown { animation: to-and-fro 1.4s linear infinite alternate; }
    @keyframes to-and-fro { to { transform: translateX(233%); } }
    @media (prefers-reduced-motion: reduce) { .unknown { animation: none; } }
  `,
})
export class GrainBar {
  readonly label = input.required<string>();
  /** From 0 to 1; `null` where it is not known. */
  readonly share = input<number | null>(null);
  protected readonly percent = computed(() => {
    const share = this.share();
    return share === null ? null : Math.round(share * 100);
  });
}
