import { say, spoken, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import {
  SETTING_PATTERNS,
  SETTING_STATES,
  stateTold,
  outOfReach,
  placeMessage,
  settingsCss,
  unshown,
  type PlannedField,
  type Reachability,
  type SettingField,
  type SettingPattern,
  type SettingState,
  type Strategy,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { SelectButton } from 'primeng/selectbutton';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import { plannedCss } from '../../shared/site/settings-plans';
import { SiteStore } from '../../shared/site/site-store';
import { VariationDialog } from '../../shared/trials/variation-dialog';
import { ApiProblem } from '../../shared/api/api-problem';
import { Announcer } from '../../shared/spoken/announcer';
import { Messages } from '../../shared/spoken/messages';
import { FieldDialog } from './field-dialog';
import { FixedDialog } from './fixed-dialog';
import { FramedPicture } from './framed-picture';
import { SettingsReadDialog } from './read-dialog';
import { SettingDetail } from './setting-detail';
import { SettingsStore } from './settings-store';
import { SettingsTable } from './settings-table';

/** The settings sheet of a part: what its maker offers, filled from the palette, and handed over field by field. */
@Component({
  selector: 'uv-settings-view',
  imports: [
    Button,
    FieldDialog,
    FixedDialog,
    FormsModule,
    FramedPicture,
    SelectButton,
    SettingDetail,
    SettingsReadDialog,
    SettingsTable,
    VariationDialog,
  ],
  providers: [SettingsStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pane]': 'pane()' },
  templateUrl: './settings-view.html',
  styleUrls: ['../match-layout.scss', './settings-view.scss'],
})
export class SettingsView {
  protected readonly wordsOf = wordsOf;

  readonly partId = input.required<number>();
  /** The pane that shows where there is room for one. */
  readonly pane = input('rows');

  protected readonly site = inject(SiteStore);
  protected readonly store = inject(SettingsStore);
  readonly #announcer = inject(Announcer);
  readonly #messages = inject(Messages);
  readonly #engine = inject(Engine);
  readonly #router = inject(Router);

  protected readonly strategies = [
    { strategy: 'blend', label: wordsOf('match.blend') },
    { strategy: 'stand-out', label: wordsOf('match.stand-out') },
  ];
  protected readonly patterns = spoken(SETTING_PATTERNS);
  protected readonly isReading = signal(false);
  protected readonly isVarying = signal(false);
  protected readonly isNaming = signal(false);
  protected readonly variationName = computed(
    () =>
      `${this.store.part()?.name ?? ''}, ${this.store.sheet()?.strategy === 'blend' ? wordsOf('match.blended') : wordsOf('match.standing-out')}`,
  );
  /** The field that is edited, and whether it is new; `null` for none. */
  protected readonly editing = signal<{ readonly field: SettingField; readonly isNew: boolean } | null>(null);
  protected readonly shownState = signal<SettingState>('rest');

  protected readonly fields = computed(() => this.store.plan()?.fields ?? []);
  protected readonly next = computed(() => this.store.open().at(0) ?? null);
  protected readonly presentCss = computed(() => {
    const sheet = this.store.sheet();
    return sheet ? settingsCss(sheet, ({ present }) => present) : '';
  });
  protected readonly plannedCss = computed(() => {
    const plan = this.store.plan();
    return plan ? plannedCss(plan) : '';
  });
  /** States that some field is for. */
  protected readonly states = computed(() => {
    const used = new Set(this.fields().flatMap(({ field }) => field.places.map(({ state }) => state)));
    return SETTING_STATES.filter((state) => state === 'rest' || (used.has(state) && state !== 'current')).map(
      (state) => ({ state, label: say(stateTold(state)) }),
    );
  });
  protected readonly summary = computed(() => {
    const fields = this.fields();
    const count = (test: (field: Spoken<PlannedField>) => boolean): number => fields.filter(test).length;
    const [handed, late] = [
      count(({ handOver }) => handOver === 'handed'),
      count(({ handOver }) => handOver === 'out-of-date'),
    ];
    return [
      wordsOf('match.field-fields', { fields: fields.length }),
      wordsOf('match.hand-over', { open: this.store.open().length }),
      ...(handed > 0 ? [wordsOf('match.handed-over', { handed })] : []),
      ...(late > 0 ? [wordsOf('match.differs-differ-there', { late })] : []),
    ].join(' · ');
  });
  protected readonly conflicts = computed(() => this.store.plan()?.conflicts ?? []);
  protected readonly present = computed(() => this.store.plan()?.present ?? []);
  /** Said where the site has two lightings: a maker takes one value. */
  protected readonly isForBoth = computed(() => this.site.second() !== null);
  protected readonly groundless = computed(() => this.store.plan()?.groundless ?? []);
  readonly #reachabilities = toSignal(
    toObservable(this.site.site).pipe(
      askEngine(this.#engine, (site, engine) => (site ? engine.reachabilities() : null), []),
    ),
    { initialValue: [] },
  );
  readonly #reachability = computed<Reachability>(
    () => this.#reachabilities().find(([id]) => id === this.partId())?.[1] ?? 'framed',
  );
  protected readonly beyond = computed(() => {
    const sheet = this.store.sheet();
    return sheet ? spoken(outOfReach(sheet, this.#reachability())) : [];
  });
  protected readonly unshown = computed(() => {
    const sheet = this.store.sheet();
    return sheet && sheet.document !== ''
      ? [...new Set(unshown(sheet).map(({ place }) => say(placeMessage(place))))]
      : [];
  });

  constructor() {
    effect(() => {
      this.store.partId.set(this.partId());
      this.store.chosen.set(null);
      this.shownState.set('rest');
    });
  }

  protected start({ words, fields }: Spoken<SettingPattern>): void {
    this.store.put(wordsOf('match.start-settings-sheet', { words }), this.store.begun(fields));
  }

  protected setStrategy(strategy: Strategy): void {
    this.store.change(
      strategy === 'blend' ? wordsOf('match.blend-settings') : wordsOf('match.have-settings-stand-out'),
      (sheet) => ({
        ...sheet,
        strategy,
      }),
    );
  }

  /** Leads to what CSS reaches, on the first page that has it. */
  protected async openOnBench(selector: string): Promise<void> {
    const spot = await this.#engine.remote.firstOf(selector === '' ? (this.store.part()?.selector ?? '') : selector);
    if (spot) void this.#router.navigate(['/bench'], { queryParams: { page: spot.pageId, element: spot.element } });
  }

  protected keepVariation(name: string): void {
    this.isVarying.set(false);
    this.store.keepAsVariation(name);
  }

  protected addField(): void {
    const sheet = this.store.sheet() ?? this.store.begun();
    const taken = new Set(sheet.fields.map(({ id }) => id));
    let number = 1;
    while (taken.has(`f${number}`)) number += 1;
    const field: SettingField = { id: `f${number}`, name: '', notation: 'hex', presets: [], present: '', places: [] };
    this.editing.set({ field, isNew: true });
  }

  /** Copies a value in the maker's notation and ticks it; the next one is ready. */
  protected async copy(planned: Spoken<PlannedField>): Promise<void> {
    try {
      await navigator.clipboard.writeText(planned.text);
    } catch {
      this.#messages.report(new ApiProblem(wordsOf('match.not-copied'), wordsOf('match.browser-does-not-let')));
      return;
    }
    this.store.chosen.set(planned.field.id);
    this.store.hand([planned], true);
    const after = this.store.open().find(({ field }) => field.id !== planned.field.id);
    this.#announcer.say(
      wordsOf('match.copied-for-next-was', {
        text: planned.text,
        name: planned.field.name,
        after: after ? 'yes' : 'no',
        name2: after?.field.name ?? '',
      }),
    );
  }

  /** Asks the maker what stands there, and says how far that is what is planned. */
  protected check(): void {
    this.store.check().subscribe((found) => {
      const differing = found
        .filter(({ text, planned }) => text !== planned.text)
        .map(({ planned }) => planned.field.name);
      this.#announcer.say(
        differing.length === 0
          ? wordsOf('match.all-stands-there-as')
          : wordsOf('match.not-as-planned-there', { differing }),
      );
    });
  }

  protected act({
    field: planned,
    act,
  }: {
    readonly field: Spoken<PlannedField>;
    readonly act: 'leave' | 'lock';
  }): void {
    if (act === 'leave') this.store.settle(planned.field, { kind: 'leave' });
    else this.store.settle(planned.field, planned.isSettled ? null : planned.becomes);
  }
}
