import type { Spoken } from '@upper-veneer/words';
import { Injectable, computed, effect, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { rewriteStates, settingsCss, type SettingsPlan } from '@upper-veneer/core';
import { askEngine } from '../engine/ask-engine';
import { Engine } from '../engine/engine';
import { FramedLooks } from '../frame/framed-looks';
import { SiteStore } from './site-store';

/** What the settings sheets of the open site are to hold, and how their parts show it. */
@Injectable({ providedIn: 'root' })
export class SettingsPlans {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);

  readonly sheets = computed(() => this.#site.draft()?.settings ?? []);
  readonly #asked = computed(
    () => ({ sheets: this.sheets(), palette: this.#site.palette() }),
    // The draft comes anew with each change; most leave these as they are.
    { equal: (a, b) => a.palette === b.palette && JSON.stringify(a.sheets) === JSON.stringify(b.sheets) },
  );
  /** Plans in the order of the sheets, with the sheets they are of. */
  readonly plans = toSignal(
    toObservable(this.#asked).pipe(
      askEngine(
        this.#engine,
        ({ sheets }, engine) =>
          sheets.length === 0
            ? null
            : engine.planSettings(sheets).then((plans) => plans.map((plan, i) => ({ sheet: sheets[i], plan }))),
        [],
      ),
    ),
    { initialValue: [] },
  );
  /** CSS of each captured document that framed parts show, by its path: what its fields are to hold, states answering to attributes. */
  readonly #looks = computed<ReadonlyMap<string, string>>(
    () =>
      new Map(
        this.plans().flatMap(({ sheet, plan }) =>
          sheet.document === '' ? [] : [[sheet.document, rewriteStates(plannedCss(plan))] as const],
        ),
      ),
  );

  constructor() {
    const framed = inject(FramedLooks);
    effect(() => framed.css.set(this.#looks()));
  }
}

/** CSS that shows what the fields of a plan are to hold. */
export function plannedCss({ fields }: Spoken<SettingsPlan>): string {
  const texts = new Map(fields.map(({ field, text }) => [field.id, text]));
  return settingsCss({ fields: fields.map(({ field }) => field) }, ({ id }) => texts.get(id) ?? '');
}
