import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  Injector,
  computed,
  effect,
  inject,
  input,
  numberAttribute,
  signal,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { LIGHTINGS, isScrollbarRow, type Lighting, type OverrideState, type Painter } from '@upper-veneer/core';
import { Select } from 'primeng/select';
import { combineLatest, debounceTime } from 'rxjs';
import { Engine } from '../shared/engine/engine';
import { LightingSwitch } from '../shared/site/lighting-switch';
import { OpenedParts } from '../shared/site/opened-parts';
import { SiteStore } from '../shared/site/site-store';
import { WordHint } from '../shared/ui/word-hint';
import { UnreadMark } from '../shared/ui/unread-mark';
import { BenchActs } from './store/bench-acts';
import { BenchFlash } from './page/bench-flash';
import { PageLayouts } from './page/page-layouts';
import { Router } from '@angular/router';
import { Whereabouts } from '../shared/site/whereabouts';
import { BenchAnswers } from './store/bench-answers';
import { BenchFrames } from './store/bench-frames';
import { BenchSelection } from './store/bench-selection';
import { PageAnswers } from './store/page-answers';
import { BenchSteering } from './store/bench-steering';
import { BenchVerdict } from './store/bench-verdict';
import { compareColors, type ColorDifference } from './page/color-check';
import type { FrameDocument } from '../shared/frame/frame-document';
import { PageFrame } from '../shared/frame/page-frame';
import { InTurn } from '../shared/drawing/in-turn';
import { ColorChip } from '../shared/ui/color-chip';
import { FindField } from './page/find-field';
import { LineageBar } from './grid/lineage-bar';
import { PartsList } from './page/parts-list';
import { PictureContrast } from './verdict/picture-contrast';
import { BenchRehearsal } from './rehearsal';
import { TargetPanel } from './target-panel';
import { StateStrip } from './page/state-strip';
import { VerdictBar } from './verdict/verdict-bar';
import { WidthBar } from './page/width-bar';
import { WrittenCss } from './editor/written-css';
import { Announcer } from '../shared/spoken/announcer';
import { LightingToggle } from '../shared/ui/lighting-toggle';
import { PaneSwitch } from '../shared/ui/pane-switch';

/** The Bench: the page, what paints it in every state, and the override being written. */
@Component({
  selector: 'uv-bench-page',
  imports: [
    PaneSwitch,
    UnreadMark,
    WordHint,
    ColorChip,
    FindField,
    FormsModule,
    InTurn,
    LightingToggle,
    LineageBar,
    PageFrame,
    PartsList,
    Select,
    StateStrip,
    TargetPanel,
    VerdictBar,
    WidthBar,
    WrittenCss,
  ],
  providers: [
    PageLayouts,
    BenchSelection,
    BenchFrames,
    BenchAnswers,
    PageAnswers,
    BenchVerdict,
    BenchSteering,
    BenchActs,
    BenchFlash,
    PictureContrast,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[attr.data-pane]': 'pane()' },
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
})
export class BenchPage {
  /** Panels, one of which is shown where the window is narrow. */
  protected readonly panes = [
    { pane: 'parts', label: wordsOf('bench.parts') },
    { pane: 'page', label: wordsOf('bench.page') },
    { pane: 'target', label: wordsOf('bench.target') },
  ];
  protected readonly pane = signal('page');
  /** The spot a link leads to: page, element, pseudo-element, property and state. */
  readonly page = input(undefined, { transform: numberAttribute });
  readonly element = input(undefined, { transform: numberAttribute });
  readonly pseudo = input('');
  readonly property = input('');
  readonly state = input('');
  readonly width = input(undefined, { transform: numberAttribute });
  readonly lighting = input('');

  protected readonly site = inject(SiteStore);
  protected readonly selection = inject(BenchSelection);
  protected readonly answers = inject(BenchAnswers);
  protected readonly ofPage = inject(PageAnswers);
  protected readonly verdict = inject(BenchVerdict);
  protected readonly frames = inject(BenchFrames);
  protected readonly steering = inject(BenchSteering);
  protected readonly opened = inject(OpenedParts);
  protected readonly acts = inject(BenchActs);
  protected readonly flash = inject(BenchFlash);
  readonly #engine = inject(Engine);
  readonly #lighting = inject(LightingSwitch);
  readonly #announcer = inject(Announcer);
  readonly #layouts = inject(PageLayouts);
  readonly #router = inject(Router);
  readonly #whereabouts = inject(Whereabouts);
  /** Where one is, as the address says it. */
  readonly #spot = computed(() => {
    const target = this.selection.target();
    const chosen = target !== null;
    return {
      page: this.selection.pageId(),
      element: target?.element ?? null,
      pseudo: target?.pseudo ?? '',
      property: chosen ? this.selection.rowProperty().property : '',
      state: chosen ? this.selection.cell().state : '',
    };
  });
  /** What the address asks for; `null` for what it leaves open. */
  readonly #asked = computed(() => ({
    page: numberOrNull(this.page()),
    element: numberOrNull(this.element()),
    pseudo: this.pseudo() ?? '',
    property: this.property() ?? '',
    state: this.state() ?? '',
    width: numberOrNull(this.width()),
    lighting: LIGHTINGS.find((name) => name === this.lighting()) ?? null,
  }));
  /** Addresses written here that have not come back yet: one may come when the next is chosen already. */
  readonly #written: string[] = [];
  readonly #frame = signal<FrameDocument | null>(null);

  protected readonly zooms = [
    { zoom: 0, label: wordsOf('bench.fit') },
    { zoom: 0.5, label: '50 %' },
    { zoom: 0.75, label: '75 %' },
    { zoom: 1, label: '100 %' },
  ];
  protected readonly zoom = signal(0);
  protected readonly differences = signal<readonly ColorDifference[]>([]);
  /** Share of the page that is shown without the veneer; `null` for none. */
  protected readonly peel = signal<number | null>(null);
  protected readonly isProbing = signal(false);
  /** What paints the pixel asked about, topmost first. */
  protected readonly painters = signal<readonly Painter[]>([]);
  /** Whether the worker still owes an answer. */
  protected readonly isOnScrollbar = computed(
    () => isScrollbarRow(this.selection.cell().row) && this.selection.target() !== null,
  );
  protected readonly isBusy = computed(() => this.#engine.pending() > 0 || this.site.isSaving());
  protected readonly drawn = this.#frame.asReadonly();

  readonly #url = computed(() => this.frames.framed().url);
  protected readonly flashWords = computed(() => {
    const places = this.flash.shown()?.places ?? [];
    return places.length === 0
      ? wordsOf('bench.nothing-this-page')
      : wordsOf('bench.test-colour', {
          places: places.map(({ name, count }) => (count === 1 ? name : `${name} (${count})`)).join(' · '),
        });
  });
  protected readonly differenceText = computed(() => {
    const [first] = this.differences();
    return first
      ? wordsOf('bench.element-reckoned-browser-paints', {
          element: first.element,
          property: first.property,
          core: first.core,
          frame: first.frame,
        })
      : '';
  });

  constructor() {
    // Said aloud: what was chosen, and the verdict when it is another.
    const chosen = computed(() => {
      const found = this.answers.inspection();
      return found
        ? wordsOf('bench.chosen-states', { name: found.name, selector: found.selector, states: found.states.length })
        : '';
    });
    const judged = computed(() => {
      const found = this.verdict.judgement();
      if (!found) return '';
      const fails = found.findings.filter(({ standing }) => standing === 'fails').map(({ text }) => text);
      const looks = found.findings.filter(({ standing }) => standing === 'look').length;
      return wordsOf('bench.fails-look', { count: fails.length, fails, looks });
    });
    for (const words of [chosen, judged]) effect(() => words() !== '' && this.#announcer.say(words()));
    // Followed where it was not written here: a link, a reload, the back button.
    const isThere = computed(() => this.site.site() !== null);
    effect(() => {
      const address = this.#asked();
      if (!isThere()) return;
      untracked(() => {
        const at = this.#written.indexOf(JSON.stringify(address));
        if (at === -1) this.#follow(address);
        else this.#written.splice(0, at + 1);
      });
    });
    // The address follows, so that a reload, a bookmark and the back button lead here again.
    effect(() => {
      const { page, element, ...rest } = this.#spot();
      const site = this.site.site()?.id;
      if (site === undefined) return;
      const cell =
        element === null
          ? {}
          : { element, ...Object.fromEntries(Object.entries(rest).filter(([, value]) => value !== '')) };
      const lighting = this.#lighting.hasSecond() ? this.#lighting.lighting() : null;
      const params = {
        site,
        page,
        ...cell,
        width: this.selection.width(),
        ...(lighting === null ? {} : { lighting }),
      };
      untracked(() => {
        const before = this.#whereabouts.bench();
        this.#whereabouts.bench.set(params);
        const written = JSON.stringify({ page, element, ...rest, width: this.selection.width(), lighting });
        if (written !== JSON.stringify(this.#asked())) this.#written.push(written);
        const isElsewhere =
          before['page'] !== undefined &&
          (before['page'] !== params.page || before['element'] !== ('element' in params ? params.element : undefined));
        void this.#router.navigate([], { queryParams: params, replaceUrl: !isElsewhere });
      });
    });
    effect(() => {
      this.#url();
      this.#frame.set(null);
    });
    combineLatest([
      toObservable(this.#frame),
      toObservable(this.site.veneer),
      toObservable(this.selection.width),
      // Of a state only whether there is one matters: another target at rest changes no colour.
      toObservable(computed(() => this.answers.forced().length > 0)),
    ])
      .pipe(debounceTime(400), takeUntilDestroyed())
      .subscribe(([frame]) => this.#check(frame).catch((error: unknown) => this.#engine.tell(error)));
    // Where texts lie is measured anew when the page, its width or what lies on it changes.
    combineLatest([toObservable(this.#frame), toObservable(this.site.veneer), toObservable(this.selection.width)])
      .pipe(debounceTime(250), takeUntilDestroyed())
      .subscribe(([frame]) => void (frame && this.#layouts.take(this.selection.pageId(), frame)));
    combineLatest([toObservable(this.#frame), toObservable(this.selection.width)])
      .pipe(debounceTime(4000), takeUntilDestroyed())
      .subscribe(
        ([frame, width]) =>
          void (
            frame &&
            this.#layouts.takeOthers(
              (this.site.site()?.pages ?? [])
                .filter(({ id }) => id !== this.selection.pageId())
                .map(({ id }) => ({ id, framed: this.frames.framedPage(id) })),
              width,
            )
          ),
      );
    inject(DestroyRef).onDestroy(() => this.#layouts.stop());
    const [rehearsal, injector] = [inject(BenchRehearsal), inject(Injector)];
    effect((onCleanup) => {
      const [drawn, site] = [this.#frame(), this.site.site()?.id];
      if (!drawn || site === undefined || this.selection.target() !== null) return;
      const at = { pageId: this.selection.pageId(), width: this.selection.width(), drawn };
      onCleanup(rehearsal.whenQuiet(site, () => ({ ...at, page: this.frames.framed() }), injector));
    });
  }

  protected onReady(frame: FrameDocument): void {
    this.#frame.set(frame);
  }

  protected flashStep(step: { readonly element: number; readonly pseudo: string }): void {
    void this.flash.hold({ kind: 'step', pageId: this.selection.pageId(), ...step, width: this.selection.width() });
  }

  /** Chooses what paints a pixel, and says what else does. */
  protected async probe(stack: readonly number[]): Promise<void> {
    this.isProbing.set(false);
    const painters = await this.#engine.remote.whatPaints(this.selection.pageId(), stack, this.selection.width());
    this.painters.set(painters);
    if (painters[0]) this.selection.choose(painters[0].element, painters[0].pseudo);
  }

  protected chooseState(state: OverrideState): void {
    this.selection.chooseCell({ ...this.selection.cell(), state });
  }

  #follow({
    page,
    element,
    width,
    lighting,
    ...cell
  }: {
    readonly page: number | null;
    readonly element: number | null;
    readonly pseudo: string;
    readonly property: string;
    readonly state: string;
    readonly width: number | null;
    readonly lighting: Lighting | null;
  }): void {
    if (lighting !== null) this.#lighting.show(lighting);
    if (width !== null && width >= 240 && width <= 3000) this.selection.width.set(width);
    if (page === null || !this.site.site()?.pages.some(({ id }) => id === page)) return;
    if (element === null) this.selection.showPage(page);
    else if (JSON.stringify({ page, element, ...cell }) !== JSON.stringify(this.#spot()))
      this.selection.showSpot({ page, element, ...cell });
  }

  /** The core's colours at rest are held against what the frame's engine computed. */
  async #check(frame: FrameDocument | null): Promise<void> {
    if (!frame || this.answers.forced().length > 0) return;
    const veneer = this.site.veneer();
    const colors = await this.#engine.remote.colors(this.selection.pageId(), this.selection.width());
    const differences = await compareColors(
      frame,
      colors,
      () => this.#frame() !== frame || this.site.veneer() !== veneer,
    );
    if (this.#frame() === frame) this.differences.set(differences);
  }
}

function numberOrNull(value: number | undefined): number | null {
  return value === undefined || Number.isNaN(value) ? null : value;
}
