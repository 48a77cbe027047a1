import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { LightingSwitch } from '../site/lighting-switch';

/** Shows the site in its second lighting and back; nothing for a site of one. */
@Component({
  selector: 'uv-lighting-toggle',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (switch.hasSecond()) {
      <button
        type="button" [attr.aria-pressed]="isInverted()" title="Show the site in its second lighting" i18n-title
        (click)="switch.show(isInverted() ? 'light' : 'inverted')" i18n>Inverted</button>
    }
  `,
  styles: `
    button { padding: 3px 6px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    button[aria-pressed='true'] { border-color: var(--uv-black); background: var(--uv-black); color: var(--uv-on-black); }
  `,
})
export class LightingToggle {
  protected readonly switch = inject(LightingSwitch);
  protected readonly isInverted = computed(() => this.switch.lighting() === 'inverted');
}
