import { wordsOf } from '@upper-veneer/words';
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
  templateUrl: './address-source.html',
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
  protected readonly wordsOf = wordsOf;

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
