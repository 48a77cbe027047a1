import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, output, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import type { PaletteRequest } from '@upper-veneer/contract';
import { readMarker, type LightingSignal } from '@upper-veneer/core';
import { spoken, wordsOf } from '@upper-veneer/words';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Select } from 'primeng/select';
import { signalWords, withLightDerived, withSecond } from '../shared/site/palette-edits';
import { LightingSwitch } from '../shared/site/lighting-switch';
import { SiteStore } from '../shared/site/site-store';
import { LightingToggle } from '../shared/ui/lighting-toggle';

/** Whether the site has a second lighting, what tells it, and which of the two is looked at. */
@Component({
  selector: 'uv-second-lighting',
  imports: [Button, FormsModule, InputText, LightingToggle, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <span class="told">
      <span i18n>Second lighting</span>
      <p-select
        [options]="ways" optionLabel="label" optionValue="way" [ngModel]="way()" (ngModelChange)="choose($event)"
        size="small" ariaLabel="How the second lighting is told" i18n-ariaLabel
      />
    </span>
    @if (way() === 'marker') {
      <form (ngSubmit)="use()">
        <input
          pInputText pSize="small" class="uv-mono" name="marker" spellcheck="false" autocomplete="off"
          placeholder="html.night" aria-label="Class or attribute that tells it" i18n-aria-label [attr.aria-invalid]="problem() !== ''"
          [ngModel]="text()" (ngModelChange)="text.set($event)" (blur)="use()"
        />
      </form>
    }
    <uv-lighting-toggle />
    @if (lighting.lighting() === 'inverted') {
      <p-button label="Derive light from this" i18n-label [outlined]="true" size="small" (onClick)="derive()" />
    }
    @if (problem(); as words) { <p class="problem" role="alert">{{ words }}</p> }
    @else if (lighting.hasSecond()) {
      <p class="uv-soft" i18n>Every role is derived from the light set so that its pairs pass, until it is set by hand. Overrides bound to roles follow.</p>
    }
    @else {
      <p class="uv-soft" i18n>If visitors can turn the site dark, say how: each role then has a colour for either lighting, and overrides follow.</p>
    }
  `,
  styles: `
    :host { display: flex; flex-wrap: wrap; align-items: center; gap: 6px 12px; padding: 8px 10px; margin-bottom: 12px; background: var(--uv-panel); border: 1px solid var(--uv-line); border-radius: 3px; font-size: 12.5px; }
    .told { display: flex; align-items: center; gap: 8px; font-weight: 700; }
    input { width: 190px; }
    p { flex-basis: 100%; margin: 0; font-size: 12px; }
    .problem { color: var(--uv-fails); }
  `,
})
export class SecondLighting {
  protected readonly site = inject(SiteStore);
  protected readonly lighting = inject(LightingSwitch);
  /** Emits the palette as it is to be. */
  readonly changed = output<PaletteRequest>();

  protected readonly ways = [
    { way: 'none', label: wordsOf('palette.none') },
    { way: 'scheme', label: 'prefers-color-scheme: dark' },
    { way: 'marker', label: wordsOf('palette.class-or-attribute') },
  ];
  protected readonly way = linkedSignal(() => this.site.second()?.told.kind ?? 'none');
  readonly #stored = computed(() => {
    const told = this.site.second()?.told;
    return told?.kind === 'marker' ? signalWords(told) : '';
  });
  protected readonly text = linkedSignal(() => this.#stored());
  protected readonly problem = signal('');

  protected choose(way: string): void {
    this.way.set(way as LightingSignal['kind']);
    this.problem.set('');
    if (way === 'marker') return;
    this.changed.emit(withSecond(this.site.palette(), way === 'scheme' ? { kind: 'scheme' } : null));
  }

  /** Takes what was typed once it is one class or attribute. */
  protected use(): void {
    if (this.text().trim() === this.#stored()) return this.problem.set('');
    if (this.text().trim() === '') return;
    const reading = spoken(readMarker(this.text()));
    this.problem.set(reading.ok ? '' : reading.reason.charAt(0).toUpperCase() + reading.reason.slice(1));
    if (reading.ok) this.changed.emit(withSecond(this.site.palette(), reading.marker));
  }

  protected derive(): void {
    this.changed.emit(withLightDerived(this.site.palette()));
  }
}
