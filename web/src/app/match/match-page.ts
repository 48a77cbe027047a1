import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import {
  familyOf,
  rowAsFound,
  type Becomes,
  type MatchScope,
  type MeltingAreas,
  type Strategy,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import type { ForcedStates } from '../shared/engine/engine-api';
import type { BesidesRows, MatchView } from '../shared/engine/match-api';
import type { FramedPage } from '../shared/frame/framed-page';
import { LightingSwitch } from '../shared/site/lighting-switch';
import { BeyondCss } from './beyond-css';
import { SiteStore } from '../shared/site/site-store';
import { LightingToggle } from '../shared/ui/lighting-toggle';
import { VariationDialog } from '../shared/trials/variation-dialog';
import { UnreadMark } from '../shared/ui/unread-mark';
import { PeelLine } from '../shared/frame/peel-line';
import { PaneSwitch } from '../shared/ui/pane-switch';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { combineLatest } from 'rxjs';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { EyeFirst } from './eye-first';
import { KitsDialog } from './kits-dialog';
import { MatchStore } from './match-store';
import { MatchTable } from './match-table';
import { scopeInAddress, scopeOfAddress } from './plan';
import { RowDetail } from './row-detail';
import { ScopeList } from './scope-list';
import { ScopePicture } from '../shared/frame/scope-picture';
import { SettingsView } from './settings/settings-view';
import { ShapeRows } from './shape-rows';
import { TemplatesDialog } from './templates/templates-dialog';
import { ThemeProperties } from './theme-properties';

/** States the pictures can be put into, with the pseudo-classes that hold then. */
const SHOWN_STATES: readonly { readonly state: string; readonly label: string; readonly names: readonly string[] }[] = [
  { state: 'rest', label: wordsOf('match.rest'), names: [] },
  { state: 'hover', label: wordsOf('match.hover'), names: ['hover'] },
  { state: 'focus', label: wordsOf('match.focus'), names: ['focus', 'focus-visible'] },
  { state: 'active', label: wordsOf('match.pressed'), names: ['hover', 'active'] },
  { state: 'visited', label: wordsOf('match.visited'), names: ['visited'] },
  { state: 'checked', label: wordsOf('match.checked'), names: ['checked'] },
  { state: 'invalid', label: wordsOf('match.invalid'), names: ['invalid', 'user-invalid'] },
  { state: 'disabled', label: wordsOf('match.disabled'), names: ['disabled'] },
];

/** Elements that are lit in a picture at once. */
const MOST_LIT = 300;

/** Match: what a scope paints beside what it is to become, planned before anything is written. */
@Component({
  selector: 'uv-match-page',
  imports: [
    BeyondCss,
    Button,
    EyeFirst,
    FormsModule,
    KitsDialog,
    LightingToggle,
    MatchTable,
    PaneSwitch,
    PeelLine,
    RouterLink,
    RowDetail,
    ScopeList,
    ScopePicture,
    Select,
    SettingsView,
    SelectButton,
    ShapeRows,
    TemplatesDialog,
    ThemeProperties,
    UnreadMark,
    VariationDialog,
  ],
  providers: [MatchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pane]': 'pane()' },
  templateUrl: './match-page.html',
  styleUrls: ['./match-layout.scss', './match-page.scss'],
})
export class MatchPage {
  protected readonly wordsOf = wordsOf;

  protected readonly isKits = signal(false);
  protected readonly isVarying = signal(false);
  protected readonly isForming = signal(false);
  protected readonly templateWords = computed(() => {
    const { templates = [], template = '' } = this.site.site()?.parts.find(({ id }) => id === this.onePart()) ?? {};
    return template !== ''
      ? wordsOf('match.template-of', { template })
      : templates.length > 0
        ? wordsOf('match.templates-count', { count: templates.length + 1 })
        : wordsOf('match.templates-act');
  });
  protected readonly variationName = computed(
    () =>
      `${this.name()}, ${this.match.choices().strategy === 'blend' ? wordsOf('match.blended') : wordsOf('match.standing-out')}`,
  );
  protected readonly panes = [
    { pane: 'scope', label: wordsOf('match.scope') },
    { pane: 'rows', label: wordsOf('match.colours') },
    { pane: 'detail', label: wordsOf('match.chosen') },
  ];
  protected readonly pane = signal('rows');
  protected readonly strategies = [
    { strategy: 'blend', label: wordsOf('match.blend') },
    { strategy: 'stand-out', label: wordsOf('match.stand-out') },
  ];
  protected readonly widths = [1280, 820, 390].map((width) => ({ width, label: String(width) }));
  protected readonly width = signal(1280);

  protected readonly site = inject(SiteStore);
  protected readonly match = inject(MatchStore);
  readonly #engine = inject(Engine);
  protected readonly lighting = inject(LightingSwitch);
  readonly #route = inject(ActivatedRoute);
  readonly #router = inject(Router);

  protected readonly chosen = linkedSignal<string, readonly string[]>({
    source: () => this.match.key(),
    computation: () => [],
  });
  protected readonly shownState = linkedSignal<string, string>({
    source: () => this.match.key(),
    computation: () => 'rest',
  });

  protected readonly hasPalette = computed(() => {
    const { roles, shape } = this.site.palette();
    return roles.length > 0 || Object.keys(shape ?? {}).length > 0;
  });
  protected readonly name = computed(() => {
    const scope = this.match.scope();
    const site = this.site.site();
    if (!scope || !site) return wordsOf('match.match-act');
    if (scope.kind === 'site') return wordsOf('match.whole-site');
    if (scope.kind === 'page') return site.pages.find(({ id }) => id === scope.pageId)?.name ?? 'A page';
    const names = site.parts.filter(({ id }) => scope.partIds.includes(id)).map((part) => part.name);
    return names.length > 2
      ? wordsOf('match.more', { names: names[0], names2: names.length - 1 })
      : names.join(' and ');
  });
  /** The page that is drawn, on which prominence is reckoned. */
  protected readonly drawnOn = computed(
    () => this.site.site()?.pages.find(({ id }) => id === this.match.view()?.lead?.pageId)?.name ?? '',
  );
  protected readonly doing = computed(() => {
    const state = this.match.state();
    return state.status === 'working' ? state.doing : '';
  });
  protected readonly share = computed(() => {
    const state = this.match.state();
    return state.status === 'working' ? Math.round(100 * state.share) : 0;
  });
  protected readonly rows = computed(() => this.match.view()?.rows ?? []);
  protected readonly chosenRows = computed(() => {
    const chosen = this.chosen();
    return chosen.flatMap((id) => this.rows().find(({ found }) => found.id === id) ?? []).reverse();
  });
  protected readonly summary = computed(() => {
    const view = this.match.view();
    if (!view) return '';
    const left = view.rows.filter(({ becomes }) => becomes.kind === 'leave').length;
    const kept = view.rows.filter(({ isLocked }) => isLocked).length;
    const ours = view.rows.filter(({ found }) => found.isBrand).length;
    return [
      wordsOf('match.colours-found', { rows: view.rows.length }),
      wordsOf('match.matched', { rows: view.rows.length - left }),
      ...(ours > 0 ? [wordsOf('match.ours-already', { ours })] : []),
      ...(kept > 0 ? [wordsOf('match.kept-set-hand', { kept })] : []),
      ...(view.measuredPages < view.pages
        ? [wordsOf('match.areas-pages', { measuredPages: view.measuredPages, pages: view.pages })]
        : []),
    ].join(' · ');
  });
  protected readonly states = computed(() => {
    const answering = this.match.view()?.answering ?? {};
    return SHOWN_STATES.filter(({ state }) => state === 'rest' || (answering[state]?.length ?? 0) > 0);
  });
  protected readonly forced = computed<ForcedStates>(() => {
    const state = this.shownState();
    const names = SHOWN_STATES.find((entry) => entry.state === state)?.names ?? [];
    return (this.match.view()?.answering[state] ?? []).map((element) => ({ element, names }));
  });
  protected readonly framed = computed(() => {
    const view = this.match.view();
    return view?.lead
      ? {
          before: this.match.framed(view.lead.pageId, ''),
          after: this.match.framed(view.lead.pageId, view.frameCss),
          lead: view.lead,
        }
      : null;
  });
  readonly #places = toSignal(
    toObservable(computed(() => ({ id: this.chosen().at(-1), view: this.match.view() }))).pipe(
      askEngine(this.#engine, ({ id }, engine) => (id === undefined ? null : engine.matchPlaces(id)), []),
    ),
    { initialValue: [] },
  );
  /** Rows that places were set apart from, or others merged into. */
  protected readonly regrouped = computed(() => {
    const { apart = [], merged = [] } = this.match.choices();
    return [...apart.map(({ row }) => rowAsFound(row)), ...merged.flat().map(rowAsFound)];
  });
  /** Elements that are pointed at in the list of properties. */
  protected readonly pointed = signal<readonly number[]>([]);
  /** Elements of the page drawn that are pointed at, else those that the row chosen last is painted on. */
  readonly #litAll = computed(() => {
    if (this.pointed().length > 0) return this.pointed();
    const pageId = this.match.view()?.lead?.pageId;
    const state = this.shownState();
    return [
      ...new Set(
        this.#places()
          .filter(
            (place) => place.pageId === pageId && (state === 'rest' || place.state === state || place.state === 'rest'),
          )
          .map(({ element }) => element),
      ),
    ];
  });
  protected readonly lit = computed(() => this.#litAll().slice(0, MOST_LIT));
  /** Said where not all of them are lit. */
  protected readonly litWords = computed(() => {
    const all = this.#litAll().length;
    return all > MOST_LIT ? wordsOf('match.lit', { MOSTLIT: MOST_LIT, all }) : '';
  });
  protected readonly isOff = computed(() => {
    const without = this.match.without();
    const chosen = this.chosen();
    return chosen.length > 0 && chosen.every((id) => without.includes(id));
  });
  /** Whether anything was set by hand that proposing again would give up. */
  protected readonly hasSettled = computed(() => {
    const { locked, equal, mains, properties, apart = [], merged = [], shapes = {} } = this.match.choices();
    const settled = [...Object.keys({ ...locked, ...shapes }), ...equal, ...(mains ?? []), ...apart, ...merged];
    return settled.length > 0 || properties != null;
  });
  protected readonly unmet = computed(() => this.match.view()?.unmet ?? []);
  /** What stands beside the match: the scope as it arrived, by the other strategy, or in the other lighting; or a line divides one picture. */
  protected readonly besides = computed(() => [
    { beside: 'arrived', label: wordsOf('match.as-arrived') },
    {
      beside: 'strategy',
      label: this.match.choices().strategy === 'blend' ? wordsOf('match.if-stood-out') : wordsOf('match.if-blended'),
    },
    ...(this.lighting.hasSecond()
      ? [
          {
            beside: 'lighting',
            label: this.lighting.lighting() === 'light' ? wordsOf('match.inverted') : wordsOf('match.light'),
          },
        ]
      : []),
    ...(this.match.scope()?.kind === 'parts' ? [{ beside: 'theme', label: wordsOf('match.left-theme') }] : []),
    { beside: 'line', label: wordsOf('match.one-picture-line') },
  ]);
  protected readonly beside = signal<'arrived' | 'strategy' | 'lighting' | 'theme' | 'line'>('arrived');
  /** Share of the picture, from the left, that is shown as it arrived. */
  protected readonly divide = signal(0.5);
  protected readonly besideHeading = computed(() => {
    switch (this.beside()) {
      case 'strategy':
        return this.match.choices().strategy === 'blend' ? wordsOf('match.if-stood-out') : wordsOf('match.if-blended');
      case 'theme':
        return wordsOf('match.if-were-left-theme');
      case 'lighting':
        return this.lighting.lighting() === 'light'
          ? wordsOf('match.matched-inverted')
          : wordsOf('match.matched-light');
      default:
        return wordsOf('match.as-arrived');
    }
  });
  readonly #otherwise = toSignal(
    toObservable(computed(() => ({ beside: this.beside(), view: this.match.view() }))).pipe(
      askEngine(
        this.#engine,
        ({ beside, view }) =>
          !view
            ? null
            : beside === 'strategy'
              ? this.match.otherCss()
              : beside === 'theme'
                ? this.match.neutralCss()
                : null,
        '',
      ),
    ),
    { initialValue: '' },
  );
  readonly #otherLighting = toSignal(
    toObservable(computed(() => ({ beside: this.beside(), view: this.match.view() }))).pipe(
      askEngine<{ beside: string; view: Spoken<MatchView> | null }, FramedPage | null>(
        this.#engine,
        ({ beside, view }) => (beside === 'lighting' && view ? this.match.otherLighting() : null),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly besideFrame = computed(() => {
    const drawn = this.framed();
    if (!drawn) return null;
    if (this.beside() === 'strategy' || this.beside() === 'theme')
      return this.match.framed(drawn.lead.pageId, this.#otherwise());
    return this.beside() === 'lighting' ? (this.#otherLighting() ?? drawn.before) : drawn.before;
  });
  /** What the match brings about, or cannot, besides its rows. */
  readonly #besidesRows = toSignal(
    toObservable(this.match.view).pipe(
      askEngine<Spoken<MatchView> | null, Spoken<BesidesRows> | null>(
        this.#engine,
        (view, engine) => (view ? engine.besidesRows() : null),
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly melting = computed(() =>
    (this.#besidesRows()?.melting ?? []).map((entry) => ({ ...entry, where: whereMelting(entry) })),
  );
  protected readonly meltingWords = computed(() => {
    const pairs = this.melting().reduce((sum, entry) => sum + entry.pairs, 0);
    const { measuredPages = 0, pages = 0 } = this.match.view() ?? {};
    const looked = measuredPages < pages ? wordsOf('match.pages-laid-out', { measuredPages, pages }) : '';
    return wordsOf('match.pair-neighbouring-areas-becomes', { pairs, looked });
  });
  readonly #reachabilities = toSignal(
    toObservable(this.site.site).pipe(
      askEngine(this.#engine, (site, engine) => (site ? engine.reachabilities() : null), []),
    ),
    { initialValue: [] },
  );
  /** Framed parts that stand in the scope: a part cannot be chosen, but a page or the site holds some. */
  protected readonly framedParts = computed(() => {
    const scope = this.match.scope();
    return this.#reachabilities()
      .filter(
        ([, reachability, pageIds]) =>
          reachability === 'framed' &&
          (scope?.kind === 'site' || (scope?.kind === 'page' && pageIds.includes(scope.pageId))),
      )
      .flatMap(([id]) => this.site.site()?.parts.find((part) => part.id === id)?.name ?? []);
  });
  protected readonly pictures = computed(() => this.#besidesRows()?.pictures ?? []);

  /** Whether a part's settings are shown in place of what CSS recolours. */
  protected readonly showsSettings = signal(false);
  /** The one part in the scope; `null` for any other scope. */
  protected readonly onePart = computed(() => {
    const scope = this.match.scope();
    return scope?.kind === 'parts' && scope.partIds.length === 1 ? scope.partIds[0] : null;
  });
  readonly #isFramed = computed(() =>
    this.#reachabilities().some(([id, reachability]) => id === this.onePart() && reachability === 'framed'),
  );
  /** The part whose settings are shown: one that only takes settings always shows those. */
  protected readonly settingsOf = computed(() => (this.showsSettings() || this.#isFramed() ? this.onePart() : null));

  constructor() {
    // A reload, a bookmark and the way back lead to the scope they were made of.
    combineLatest([this.#route.queryParamMap, toObservable(this.site.site)])
      .pipe(takeUntilDestroyed())
      .subscribe(([params, site]) => {
        this.showsSettings.set(params.get('of') === 'settings');
        const scope = site && scopeOfAddress(params.get('scope'), site);
        if (scope && JSON.stringify(scope) !== JSON.stringify(this.match.scope())) this.match.choose(scope);
      });
  }

  protected choose(scope: MatchScope): void {
    this.match.choose(scope);
    void this.#router.navigate([], {
      relativeTo: this.#route,
      queryParams: { scope: scopeInAddress(scope), of: null },
      queryParamsHandling: 'merge',
    });
    this.pane.set('rows');
  }

  protected keepVariation(name: string): void {
    this.isVarying.set(false);
    void this.match.keepAsVariation(name);
  }

  /** Leads between what CSS recolours of a part and what its settings do. */
  protected turnTo(of: 'settings' | null): void {
    void this.#router.navigate([], { relativeTo: this.#route, queryParams: { of }, queryParamsHandling: 'merge' });
  }

  protected setStrategy(strategy: Strategy): void {
    this.match.setStrategy(strategy);
  }

  protected set(becomes: Becomes): void {
    if (this.chosen().length > 0) this.match.set(this.chosen(), becomes);
  }

  /** Chooses every shade near the hue of the row chosen, which stays the first. */
  protected chooseFamily(): void {
    const lead = this.chosen().at(-1);
    if (lead === undefined) return;
    const family = familyOf(
      this.rows().map(({ found }) => found),
      lead,
    );
    this.chosen.set([...family.filter((id) => id !== lead), lead]);
  }

  protected act(act: 'leave' | 'lock'): void {
    if (act === 'leave') this.set({ kind: 'leave' });
    else this.match.lock(this.chosen(), !this.chosenRows().every(({ isLocked }) => isLocked));
  }

  protected off(isOff: boolean): void {
    const chosen = this.chosen();
    this.match.without.update((ids) =>
      isOff ? [...new Set([...ids, ...chosen])] : ids.filter((id) => !chosen.includes(id)),
    );
  }
}

/** On how many pages a pair melts, and how often; of those the one most apart is told. */
function whereMelting({ pairs, pages }: Spoken<MeltingAreas>): string {
  if (pairs === 1) return '';
  return pages > 1 ? wordsOf('match.most-apart-pages', { pairs, pages }) : wordsOf('match.most-apart', { pairs });
}
