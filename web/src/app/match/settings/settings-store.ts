import { spoken, type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, computed, inject, signal } from '@angular/core';
import type { DraftDocument, SettingsSheetBody } from '@upper-veneer/contract';
import {
  documentOf,
  readSettings,
  type Becomes,
  type PlannedField,
  type SettingField,
  type SettingsSheet,
} from '@upper-veneer/core';
import { EMPTY, catchError, concatMap, finalize, map, of, type Observable } from 'rxjs';
import { ApiProblem } from '../../shared/api/api-problem';
import { SiteApi } from '../../shared/api/site-api';
import { DraftEdits } from '../../shared/site/draft-edits';
import { SettingsPlans } from '../../shared/site/settings-plans';
import { SiteStore } from '../../shared/site/site-store';
import { Announcer } from '../../shared/spoken/announcer';
import { Messages } from '../../shared/spoken/messages';
import { TrialsStore } from '../../shared/trials/trials-store';

/** The settings sheet of one part: what is settled of it, what it comes to, and handing that over. */
@Injectable()
export class SettingsStore {
  readonly #site = inject(SiteStore);
  readonly #plans = inject(SettingsPlans);
  readonly #edits = inject(DraftEdits);
  readonly #api = inject(SiteApi);
  readonly #messages = inject(Messages);
  readonly #trials = inject(TrialsStore);
  readonly #announcer = inject(Announcer);

  readonly partId = signal(0);
  /** Field that was chosen last, by id. */
  readonly chosen = signal<string | null>(null);
  readonly isSending = signal(false);

  readonly part = computed(() => this.#site.site()?.parts.find(({ id }) => id === this.partId()) ?? null);
  readonly sheet = computed<SettingsSheet | null>(
    () => this.#site.draft()?.settings.find(({ partId }) => partId === this.partId()) ?? null,
  );
  readonly #planned = computed(() => this.#plans.plans().find(({ sheet }) => sheet.partId === this.partId()) ?? null);
  readonly plan = computed(() => (this.sheet() ? (this.#planned()?.plan ?? null) : null));
  /** Fields whose values are still to be handed over, in the maker's order. */
  readonly open = computed(() => (this.plan()?.fields ?? []).filter(isToHandOver));
  readonly chosenField = computed(
    () => this.plan()?.fields.find(({ field }) => field.id === this.chosen()) ?? this.plan()?.fields.at(0) ?? null,
  );

  /** A sheet to begin with. */
  begun(fields: readonly SettingField[] = []): SettingsSheet {
    return {
      partId: this.partId(),
      fields,
      fixed: [],
      document: this.documentOfPart(),
      address: '',
      strategy: 'blend',
      settled: {},
      equal: [],
      handed: {},
    };
  }

  /** The captured document that the part's frame shows; empty where none was captured. */
  documentOfPart(): string {
    const [site, part] = [this.#site.site(), this.part()];
    if (!site || !part) return '';
    for (const { html } of site.pages) {
      const found = new DOMParser().parseFromString(html, 'text/html');
      const frame = safely(() => found.querySelector(part.selector));
      const source = frame?.localName === 'iframe' ? frame.getAttribute('src') : null;
      const path = source ? documentOf(source, site.documents) : null;
      if (path !== null) return path;
    }
    return '';
  }

  put(label: string, sheet: SettingsSheet): void {
    this.#edits.putSettings(this.partId(), { label, sheet: bodyOf(sheet) }).subscribe();
  }

  drop(): void {
    const name = this.part()?.name ?? 'part';
    this.#edits.putSettings(this.partId(), { label: wordsOf('match.take-settings-sheet-away', { name }) }).subscribe();
  }

  change(label: string, change: (sheet: SettingsSheet) => SettingsSheet): void {
    const sheet = this.sheet();
    if (sheet) this.put(label, change(sheet));
  }

  /** Sets fields by hand; `null` hands them back to the proposal. */
  settle(field: SettingField, becomes: Becomes | null): void {
    this.change(
      becomes ? wordsOf('match.set', { name: field.name }) : wordsOf('match.propose', { name: field.name }),
      (sheet) => {
        const others = without(sheet.settled, field.id);
        return { ...sheet, settled: becomes ? { ...others, [field.id]: becomes } : others };
      },
    );
  }

  changeField(label: string, id: string, change: (field: SettingField) => SettingField): void {
    this.change(label, (sheet) => ({
      ...sheet,
      fields: sheet.fields.map((field) => (field.id === id ? change(field) : field)),
    }));
  }

  /** Makes a field the same as another, or lets them differ. */
  tie(field: SettingField, other: SettingField | null): void {
    this.change(
      other
        ? wordsOf('match.same-as', { name: field.name, name2: other.name })
        : wordsOf('match.its-own', { name: field.name }),
      (sheet) => {
        const untied = sheet.equal
          .map((list) => list.filter((id) => id !== field.id))
          .filter((list) => list.length > 1);
        if (!other) return { ...sheet, equal: untied };
        const list = untied.find((own) => own.includes(other.id));
        const rest = untied.filter((own) => own !== list);
        const settled = without(sheet.settled, field.id);
        return { ...sheet, settled, equal: [...rest, [...(list ?? [other.id]), field.id]] };
      },
    );
  }

  dropField(field: SettingField): void {
    this.change(wordsOf('match.take-off-sheet', { name: field.name }), (sheet) => {
      return {
        ...sheet,
        settled: without(sheet.settled, field.id),
        fields: sheet.fields.filter(({ id }) => id !== field.id),
        equal: sheet.equal.map((list) => list.filter((id) => id !== field.id)).filter((list) => list.length > 1),
      };
    });
  }

  /** Notes that values stand over there, or do not after all. */
  hand(fields: readonly Spoken<PlannedField>[], isThere: boolean): void {
    this.#edits
      .putHanded(this.partId(), {
        fields: fields.map(({ field, text }) => ({ field: field.id, ...(isThere ? { text } : {}) })),
      })
      .subscribe();
  }

  /** Keeps what the sheet comes to as a variation for a trial; the sheet stays as it is. */
  keepAsVariation(name: string): void {
    const [sheet, plan] = [this.sheet(), this.plan()];
    if (!sheet || !plan) return;
    const { partId, strategy, settled, equal } = bodyOf(sheet);
    const values = Object.fromEntries(
      plan.fields.flatMap(({ field, text }) => (text === '' ? [] : [[field.name, text]])),
    );
    this.#trials
      .act((api, siteId) =>
        api.keepVariation(siteId, {
          name,
          put: [],
          drop: [],
          settings: [{ partId, strategy, settled, equal, values }],
        }),
      )
      .subscribe(() => this.#announcer.say(wordsOf('match.kept-as-variation', { name })));
  }

  /** Has all that is to be handed over sent to the maker's address. */
  send(): void {
    const fields = this.open();
    if (fields.length === 0) return;
    this.isSending.set(true);
    this.#sent(fields)
      .pipe(finalize(() => this.isSending.set(false)))
      .subscribe();
  }

  /** Asks the maker's address what stands there and notes it; emits each field with that once it is noted. */
  check(): Observable<readonly { readonly planned: Spoken<PlannedField>; readonly text: string }[]> {
    const [site, sheet] = [this.#site.site(), this.sheet()];
    if (!site || !sheet) return EMPTY;
    this.isSending.set(true);
    return this.#api.settingsOffered(site.id, this.partId(), sheet.address).pipe(
      map(({ text }) => {
        const there = spoken(readSettings(text)).fields;
        return (this.plan()?.fields ?? []).flatMap((planned) => {
          const own = there.find(({ name }) => name === planned.field.name);
          return own ? [{ planned, text: own.present }] : [];
        });
      }),
      concatMap((found) =>
        found.length === 0
          ? of(found)
          : this.#edits
              .putHanded(this.partId(), {
                fields: found.map(({ planned, text }) => ({ field: planned.field.id, text })),
              })
              .pipe(map(() => found)),
      ),
      catchError((error: unknown) => {
        this.#messages.report(ApiProblem.from(error));
        return EMPTY;
      }),
      finalize(() => this.isSending.set(false)),
    );
  }

  #sent(fields: readonly Spoken<PlannedField>[]): Observable<DraftDocument> {
    return this.#edits.sendSettings(this.partId(), {
      fields: fields.map(({ field, text }) => ({ field: field.id, text })),
    });
  }
}

/** Whether a value is still to be brought over there. */
export function isToHandOver({ handOver, text }: Spoken<PlannedField>): boolean {
  return text !== '' && (handOver === 'open' || handOver === 'out-of-date');
}

function safely<T>(act: () => T): T | null {
  try {
    return act();
  } catch {
    return null;
  }
}

function without<T>(record: Readonly<Record<string, T>>, key: string): Record<string, T> {
  return Object.fromEntries(Object.entries(record).filter(([own]) => own !== key));
}

function bodyOf({
  partId,
  fields,
  fixed,
  document,
  address,
  strategy,
  settled,
  equal,
}: SettingsSheet): SettingsSheetBody {
  return {
    partId,
    fields,
    fixed,
    document,
    address,
    strategy,
    settled: Object.entries(settled).map(([field, becomes]) =>
      becomes.kind === 'value' ? { field, value: becomes.value } : { field },
    ),
    equal: equal.map((list) => ({ fields: list })),
  };
}
