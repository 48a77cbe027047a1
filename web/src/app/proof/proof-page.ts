import { InTurn } from '../shared/drawing/in-turn';
import { partKindWords } from '../shared/site/part-kind-words';
import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, DestroyRef, computed, inject, linkedSignal, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { PROOF_KINDS, type ProofKind } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import type { MenuItem } from 'primeng/api';
import { Menu } from 'primeng/menu';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { combineLatest } from 'rxjs';
import type { FindingView } from '../shared/engine/proof-api';
import { SiteStore } from '../shared/site/site-store';
import { PaneSwitch } from '../shared/ui/pane-switch';
import { StandingMark } from '../shared/ui/standing-mark';
import { DriftDetail } from './drift/drift-detail';
import { DriftList } from './drift/drift-list';
import { FindingCard } from './finding-card';
import { LookDetail } from './by-eye/look-detail';
import { LooksTable } from './by-eye/looks-table';
import { DriftStore } from '../shared/proof/drift-store';
import { LooksStore } from '../shared/proof/looks-store';
import { ProofStore } from '../shared/proof/proof-store';
import { ProofTable, type CellChoice, type TableRow } from './proof-table';
import { RevisionStrip } from './revision-strip';
import { KIND_WORDS, extent, headline } from './proof-words';

/** Strays from which Match is pointed to. */
const MANY_STRAYS = 5;
/** Findings that are shown at a time. */
const MOST_SHOWN = 40;

/** Proof: the whole site held to what is asked of it, at once, and what mends what fails. */
@Component({
  selector: 'uv-proof-page',
  imports: [
    InTurn,
    Button,
    DriftDetail,
    DriftList,
    FindingCard,
    FormsModule,
    LookDetail,
    LooksTable,
    Menu,
    PaneSwitch,
    ProofTable,
    RevisionStrip,
    RouterLink,
    Select,
    SelectButton,
    StandingMark,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pane]': 'pane()' },
  templateUrl: './proof-page.html',
  styleUrl: './proof-page.scss',
})
export class ProofPage {
  protected readonly wordsOf = wordsOf;

  protected readonly panes = computed(() => PANES[this.sight()]);
  protected readonly pane = signal('parts');
  protected readonly store = inject(ProofStore);
  protected readonly drift = inject(DriftStore);
  protected readonly looks = inject(LooksStore);
  protected readonly site = inject(SiteStore);
  readonly #route = inject(ActivatedRoute);
  readonly #router = inject(Router);

  protected readonly reportItems: MenuItem[] = [
    { label: wordsOf('proof.page-for-client-html'), command: () => void this.store.report('html') },
    { label: wordsOf('proof.table-all-places-csv'), command: () => void this.store.report('csv') },
  ];
  /** What of the proof is looked at. */
  protected readonly sight = signal<Sight>('findings');
  protected readonly asideWords = computed(() => ASIDE_WORDS[this.sight()]);
  protected readonly sights = computed(() => {
    const drifted = this.drift.drifts()?.length ?? null;
    const left = this.looks.left();
    return [
      { sight: 'findings', label: wordsOf('proof.findings') },
      {
        sight: 'eye',
        label: left === null ? wordsOf('proof.eye') : wordsOf('proof.eye-left', { left }),
      },
      {
        sight: 'drift',
        label: drifted ? wordsOf('proof.drift-count', { drifted }) : wordsOf('proof.drift'),
      },
    ];
  });
  protected readonly driftTitle = computed(() => {
    const drifts = this.drift.drifts();
    if (drifts === null) return wordsOf('proof.holding-overrides-against-pages');
    const missing = drifts.filter(({ isMissing }) => isMissing).length;
    return drifts.length === 0
      ? wordsOf('proof.nothing-drifted')
      : wordsOf('proof.override-overrides-drifted-only', {
          drifts: drifts.length,
          case: missing < drifts.length ? 'yes' : 'no',
          drifts2: drifts.length - missing,
        });
  });
  readonly #chosenDrift = signal('');
  /** The drifted override that is shown: the first until another is chosen. */
  protected readonly drifted = computed(() => {
    const drifts = this.drift.drifts() ?? [];
    return drifts.find(({ override }) => override.id === this.#chosenDrift()) ?? drifts.at(0) ?? null;
  });
  readonly #chosenLook = signal('');
  /** The part on a page that is shown: the first that is to be looked at until another is chosen. */
  protected readonly look = computed(() => {
    const rows = this.looks.rows() ?? [];
    return (
      rows.find(({ key }) => key === this.#chosenLook()) ??
      rows.find(({ standing }) => standing !== 'looked') ??
      rows.at(0) ??
      null
    );
  });
  protected readonly looksTitle = computed(() => {
    const rows = this.looks.rows();
    if (!rows) return wordsOf('proof.looking-where-each-part');
    const left = this.looks.left() ?? 0;
    return left === 0
      ? wordsOf('proof.all-was-looked-as')
      : wordsOf('proof.looked-eye', {
          looked: rows.length - left,
          rows: rows.length,
        });
  });
  protected readonly choice = signal<CellChoice>({});
  /** Page and width whose findings are shown; 0 for all. */
  protected readonly pageId = signal(0);
  protected readonly width = signal(0);
  readonly #most = linkedSignal<unknown, number>({ source: this.choice, computation: () => MOST_SHOWN });

  protected readonly pageOptions = computed(() => [
    { id: 0, label: wordsOf('proof.every-page') },
    ...(this.site.site()?.pages ?? []).map(({ id, name }) => ({ id, label: name })),
  ]);
  protected readonly widthOptions = computed(() => [
    { width: 0, label: wordsOf('proof.every-width') },
    ...[...new Set((this.store.proof()?.settings ?? []).map(({ width }) => width))].map((width) => ({
      width,
      label: wordsOf('proof.width', { width }),
    })),
  ]);
  /** Findings on the page and at the width chosen. */
  readonly #here = computed(() =>
    (this.store.proof()?.findings ?? []).filter(
      ({ pageIds, widths }) =>
        (this.pageId() === 0 || pageIds.includes(this.pageId())) &&
        (this.width() === 0 || widths.includes(this.width())),
    ),
  );
  readonly #narrowed = computed(() => {
    const { partId, kind } = this.choice();
    return this.#here().filter(
      (finding) =>
        (kind === undefined || finding.kind === kind) && (partId === undefined || finding.partIds.includes(partId)),
    );
  });
  protected readonly shown = computed(() => this.#narrowed().slice(0, this.#most()));
  protected readonly hidden = computed(() => this.#narrowed().length - this.shown().length);
  /** The finding that is open: the first until another is chosen. */
  protected readonly openId = linkedSignal<readonly FindingView[], string>({
    source: this.#narrowed,
    computation: (findings, before) => {
      const last = before?.value ?? '';
      return findings.some(({ id }) => id === last) ? last : (findings[0]?.id ?? '');
    },
  });
  protected readonly title = computed(() => {
    const proof = this.store.proof();
    if (!proof)
      return this.store.state().status === 'working'
        ? wordsOf('proof.looking-whole-site')
        : wordsOf('proof.nothing-was-looked-yet');
    const words = headline(levelCount(this.#here(), 'fails'), levelCount(this.#here(), 'look'));
    return this.store.arePicturesRead() ? words : wordsOf('proof.so-far', { words });
  });
  /** What is to be known of a look that was stopped. */
  protected readonly stopped = computed(() => {
    if (!this.store.proof()) return wordsOf('proof.stopped-before-anything-was');
    return this.store.isCurrent()
      ? wordsOf('proof.stopped-before-pixels-pictures')
      : wordsOf('proof.stopped-what-shown-from');
  });
  protected readonly extent = computed(() => {
    const proof = this.store.proof();
    return proof ? extent(proof) : '';
  });
  protected readonly doing = computed(() => {
    const state = this.store.state();
    return state.status === 'working' ? state.doing : '';
  });
  protected readonly share = computed(() => {
    const state = this.store.state();
    return state.status === 'working' ? Math.round(100 * state.share) : 0;
  });
  protected readonly rows = computed<readonly TableRow[]>(() => {
    const proof = this.store.proof();
    const here = this.#here();
    const parts = this.site.site()?.parts ?? [];
    return [...parts.map(({ id, name, kind }) => ({ partId: id, name, of: partKindWords(kind) })), OUTSIDE].map(
      (row) => ({
        ...row,
        cells: PROOF_KINDS.map((kind) => {
          const own = here.filter((finding) => finding.kind === kind && finding.partIds.includes(row.partId));
          const looks = proof?.cells.find((cell) => cell.kind === kind && cell.partId === row.partId)?.looks ?? 0;
          return { kind, looks, fails: levelCount(own, 'fails'), toLookAt: levelCount(own, 'look') };
        }),
      }),
    );
  });
  protected readonly isNarrowed = computed(() => Object.keys(this.choice()).length > 0);
  protected readonly narrowedTo = computed(() => {
    const { partId, kind } = this.choice();
    const part = this.rows().find((row) => row.partId === partId)?.name;
    return [part, kind && KIND_WORDS[kind].name].filter(Boolean).join(' · ') || wordsOf('proof.everything');
  });
  protected readonly counted = computed(() => {
    const { partId, kind } = this.choice();
    const own = this.#narrowed();
    const looks = this.rows()
      .filter((row) => partId === undefined || row.partId === partId)
      .flatMap(({ cells }) => cells)
      .filter((cell) => kind === undefined || cell.kind === kind)
      .reduce((sum, cell) => sum + cell.looks, 0);
    return wordsOf('proof.fail-look-looks-worst', {
      levelCount: levelCount(own, 'fails'),
      levelCount2: levelCount(own, 'look'),
      looks,
    });
  });
  /** Colours that are not ours, where there are many: they are better planned together. */
  protected readonly strays = computed(() => {
    const count = this.#narrowed().filter(({ kind, level }) => kind === 'ours' && level === 'fails').length;
    return count < MANY_STRAYS ? 0 : count;
  });
  protected readonly nothing = computed(() =>
    this.store.isCurrent() ? wordsOf('proof.nothing-here-fails-nothing') : wordsOf('proof.nothing-was-found-before'),
  );

  constructor() {
    const watched = [this.store, this.drift, this.looks];
    for (const each of watched) each.watch();
    inject(DestroyRef).onDestroy(() => {
      for (const each of watched) each.unwatch();
    });
    // A reload, a bookmark and the way back lead to the same findings.
    combineLatest([this.#route.queryParamMap, toObservable(this.site.site)])
      .pipe(takeUntilDestroyed())
      .subscribe(([params]) => {
        const part = params.get('part');
        const kind = PROOF_KINDS.find((known) => known === params.get('asks'));
        this.sight.set(SIGHTS.find((known) => known === params.get('see')) ?? 'findings');
        const choice = choiceOf(part, kind);
        if (JSON.stringify(choice) !== JSON.stringify(this.choice())) this.choice.set(choice);
      });
  }

  protected narrow(choice: CellChoice): void {
    this.choice.set(choice);
    this.pane.set('findings');
    const { partId, kind } = choice;
    void this.#router.navigate([], {
      relativeTo: this.#route,
      queryParams: { part: partId === undefined ? null : (partId ?? 'none'), asks: kind ?? null },
      queryParamsHandling: 'merge',
    });
  }

  protected see(sight: Sight): void {
    this.sight.set(sight);
    this.pane.set('parts');
    void this.#router.navigate([], {
      relativeTo: this.#route,
      queryParams: { see: sight === 'findings' ? null : sight },
      queryParamsHandling: 'merge',
    });
  }

  protected chooseDrift(id: string): void {
    this.#chosenDrift.set(id);
    this.pane.set('findings');
  }

  protected chooseLook(key: string): void {
    this.#chosenLook.set(key);
    this.pane.set('findings');
  }

  /** Goes on to the next that is to be looked at, from where one is. */
  protected nextLook(): void {
    const rows = this.looks.rows() ?? [];
    const at = rows.findIndex(({ key }) => key === this.look()?.key);
    const next = [...rows.slice(at + 1), ...rows.slice(0, at)].find(({ standing }) => standing !== 'looked');
    if (next) this.#chosenLook.set(next.key);
  }

  protected toggle(id: string): void {
    this.openId.update((open) => (open === id ? '' : id));
  }

  protected showMore(): void {
    this.#most.update((count) => count + MOST_SHOWN);
  }
}

const SIGHTS = ['findings', 'eye', 'drift'] as const;
type Sight = (typeof SIGHTS)[number];

const PANES: Readonly<Record<Sight, readonly { readonly pane: string; readonly label: string }[]>> = {
  findings: [
    { pane: 'parts', label: wordsOf('proof.parts') },
    { pane: 'findings', label: wordsOf('proof.findings') },
  ],
  eye: [
    { pane: 'parts', label: wordsOf('proof.parts') },
    { pane: 'findings', label: wordsOf('proof.pictures') },
  ],
  drift: [
    { pane: 'parts', label: wordsOf('proof.overrides') },
    { pane: 'findings', label: wordsOf('proof.what-do') },
  ],
};

/** What stands in no part. */
/** What stands beside the table, by what is shown of the proof. */
const ASIDE_WORDS: Readonly<Record<Sight, string>> = {
  findings: wordsOf('proof.findings'),
  eye: wordsOf('proof.how-looks'),
  drift: wordsOf('proof.what-do-about'),
};
const OUTSIDE = { partId: null, name: wordsOf('proof.everything-else'), of: wordsOf('proof.no-part') } as const;

function choiceOf(part: string | null, kind: ProofKind | undefined): CellChoice {
  return {
    ...(part === null ? {} : { partId: part === 'none' ? null : Number(part) }),
    ...(kind ? { kind } : {}),
  };
}

function levelCount(findings: readonly FindingView[], level: FindingView['level']): number {
  return findings.filter((finding) => finding.level === level).length;
}
