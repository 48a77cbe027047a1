import { ChangeDetectionStrategy, Component, computed, effect, inject, input, model, output } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { RadioButton } from 'primeng/radiobutton';
import { VISIT_BOUNDS } from '@upper-veneer/core';
import { EMPTY, catchError } from 'rxjs';
import { SightApi } from './visit/sight-api';

/** An address, and how its page is got: by a browser as visitors get it, or as it is sent. */
@Component({
  selector: 'uv-address-source',
  imports: [Button, FormsModule, InputText, RadioButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <label for="uv-address">Address of the page</label>
    <input pInputText id="uv-address" name="address" class="uv-mono" autocomplete="off" spellcheck="false" placeholder="https://" [ngModel]="address()" (ngModelChange)="address.set($event)" />
    @if (browser(); as found) {
      @if (found.example !== '' && address() === '') { <p class="uv-soft">Nothing at hand? <button type="button" class="link uv-mono" (click)="address.set(found.example)">{{ found.example }}</button> is the demo's, drawn by scripts.</p> }
      @if (found.program !== null) {
        <div class="how" role="radiogroup" aria-label="How the page is got">
          <span class="choice"><p-radiobutton name="how" [value]="true" inputId="uv-rendered" [ngModel]="isRendered()" (ngModelChange)="isRendered.set($event)" /><label for="uv-rendered">As a visitor's browser gets it</label></span>
          @if (isRendered()) {
            <div class="detail">
              <label class="width">Window <input pInputText pSize="small" name="width" type="number" [min]="bounds.leastWidth" [max]="bounds.mostWidth" aria-label="Width of the window in px" [ngModel]="width()" (ngModelChange)="width.set($event)" /> px wide</label>
              <p-button [label]="steps() === 0 ? 'Steps…' : steps() === 1 ? '1 step…' : steps() + ' steps…'" size="small" [outlined]="true" [disabled]="address().trim() === '' || width() === null" (onClick)="stepsWanted.emit()" />
              <p class="uv-soft">Its scripts run in {{ found.program }}, started for it and ended after. {{ found.isSandboxed ? '' : 'It runs without its own sandbox here, since the product runs as root. ' }}Looked at until nothing changes, 8 seconds at most; what comes later, or by a press, is brought by steps.</p>
            </div>
          }
          <span class="choice"><p-radiobutton name="how" [value]="false" inputId="uv-sent" [ngModel]="isRendered()" (ngModelChange)="isRendered.set($event)" /><label for="uv-sent">As it is sent</label></span>
          @if (!isRendered()) { <p class="uv-soft detail">The page with its stylesheets, pictures and fonts. What scripts put into it is missing: most consent bars, chat bubbles, booking forms and drawers.</p> }
        </div>
      } @else {
        <p class="uv-soft">The server fetches the page as it is sent, with its stylesheets, pictures and fonts. What scripts put into it is missing: no Chromium or Chrome was found on this machine (CHROME_BIN can name one). A page that scripts draw is better saved from your browser.</p>
      }
    }
  `,
  styles: `
    :host { display: grid; gap: 8px; }
    label { font-weight: 600; }
    p { margin: 0; font-size: 12.5px; }
    .how { display: grid; gap: 6px; }
    .choice { display: flex; gap: 8px; align-items: center; }
    .choice label { font-weight: 400; }
    .detail { display: flex; flex-wrap: wrap; gap: 8px; align-items: center; padding-left: 26px; }
    .width { display: flex; gap: 6px; align-items: center; font-weight: 400; }
    .width input { width: 84px; }
    .link { padding: 0; border: 0; background: none; text-decoration: underline; cursor: pointer; }
  `,
})
export class AddressSource {
  readonly address = model.required<string>();
  readonly isRendered = model.required<boolean>();
  readonly width = model.required<number | null>();
  /** How many are planned so far. */
  readonly steps = input(0);
  /** Emits when steps are to be planned on the page. */
  readonly stepsWanted = output();
  protected readonly bounds = VISIT_BOUNDS;
  protected readonly browser = toSignal(
    inject(SightApi)
      .browser()
      .pipe(catchError(() => EMPTY)),
  );
  readonly #hasBrowser = computed(() => this.browser()?.program != null);

  constructor() {
    // Where there is no browser, nothing is got by one.
    effect(() => {
      if (this.browser() && !this.#hasBrowser()) this.isRendered.set(false);
    });
  }
}
