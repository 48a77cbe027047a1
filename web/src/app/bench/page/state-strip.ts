import type { Spoken } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import type { Inspection, OverrideState } from '@upper-veneer/core';
import type { ForcedStates, Target } from '../../shared/engine/engine-api';
import type { FramedPage } from '../../shared/frame/framed-page';
import type { FrameDocument } from '../../shared/frame/frame-document';
import { createSlices } from '../../shared/frame/slices';
import { BenchAnswers } from '../store/bench-answers';
import { cutAround, type PageCut } from './page-cut';
import { PictureContrast } from '../verdict/picture-contrast';
import { StateTile } from './state-tile';

/** Time between one tile's start and the next, so that the page itself comes first. */
const NEXT_TILE_MS = 25;
const MOST_TILES = 12;
/** Elements of a page up to which each tile draws it whole, and keeps it from one target to the next. */
const DRAWN_WHOLE = 1_500;

/** How long the cut is worked on at a time: drawing the page again between two takes longer, and a task is long from 50 ms on. */
const CUT_SLICE_MS = 20;

/** What the page is cut down for. */
interface CutFrom {
  readonly drawn: FrameDocument | null;
  /** Its page and running number; empty without one. */
  readonly target: string;
  readonly width: number;
  readonly amendments: FramedPage['amendments'];
}

interface Decided {
  readonly from: CutFrom;
  /** `null` where the page is to be drawn whole. */
  readonly cut: PageCut | null;
}

const keyOf = (target: Pick<Target, 'pageId' | 'element'> | null): string =>
  target ? `${target.pageId}/${target.element}` : '';

/** The target drawn live in each state that applies to it, side by side. */
@Component({
  selector: 'uv-state-strip',
  imports: [StateTile],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (inspection(); as found) {
      @for (tile of found.strip; track tile.state) {
        <uv-state-tile
          [tile]="tile" [target]="found" [page]="page()" [width]="width()" [forced]="forced()[tile.state] ?? none"
          [cut]="cut() ?? null" [isBehind]="isBehind()" [isLoaded]="cut() !== undefined && $index < loaded()" (untrue)="drawWhole($event)"
          [overPicture]="contrast.found()[tile.state]?.ratio ?? null"
          [head]="headOf(found, tile.state)" [isCurrent]="tile.state === state()" (chosen)="chosen.emit(tile.state)"
        />
      }
    } @else {
      <p class="uv-soft" i18n>Its states are drawn here side by side.</p>
    }
  `,
  styles: `
    :host { display: grid; grid-auto-flow: column; grid-auto-columns: minmax(112px, 1fr); height: 150px; position: relative; overflow-x: auto; overflow-y: hidden; scrollbar-width: thin; background: var(--uv-bar); border-top: 1px solid var(--uv-line-strong); }
    p { place-self: center; }
  `,
})
export class StateStrip {
  readonly #answers = inject(BenchAnswers);
  readonly inspection = input.required<Spoken<Inspection> | null>();
  /** What is chosen; its inspection comes a moment later. */
  readonly target = input.required<Target | null>();
  readonly page = input.required<FramedPage>();
  /** The page as it is drawn on the Bench; what is large is cut from it for the tiles. */
  readonly drawn = input<FrameDocument | null>(null);
  readonly width = input.required<number>();
  readonly state = input.required<OverrideState>();
  readonly chosen = output<OverrideState>();

  protected readonly none: ForcedStates = [];
  protected readonly loaded = signal(0);
  protected readonly contrast = inject(PictureContrast);
  protected readonly forced = signal<Readonly<Partial<Record<OverrideState, ForcedStates>>>>({});
  readonly #chosen = computed(() => keyOf(this.target()));
  readonly #inspected = computed(() => keyOf(this.inspection()));
  /** Cut anew for another target, page or width, and when parts are opened; not at each change of colour. */
  readonly #cutFrom = computed<CutFrom>(
    () => ({ drawn: this.drawn(), target: this.#chosen(), width: this.width(), amendments: this.page().amendments }),
    {
      equal: (a, b) =>
        a.drawn === b.drawn && a.target === b.target && a.width === b.width && a.amendments === b.amendments,
    },
  );
  readonly #isLarge = computed(() => (this.drawn()?.elements().size ?? 0) > DRAWN_WHOLE);
  readonly #decided = signal<Decided | null>(null);
  /** What tiles draw: `null` the whole page, `undefined` as long as it is not known which. */
  protected readonly cut = computed(() => {
    if (!this.drawn()) return undefined;
    if (!this.#isLarge()) return null;
    const decided = this.#decided();
    return decided?.from.drawn === this.drawn() ? decided.cut : undefined;
  });
  /** Whether that, or what is known of the target, is of the one or the width before: it is kept loaded, and not shown. */
  protected readonly isBehind = computed(
    () => this.#isLarge() && (this.#decided()?.from !== this.#cutFrom() || this.#chosen() !== this.#inspected()),
  );

  constructor() {
    effect(() => {
      if (this.#inspected() === '') return;
      const found = this.inspection();
      if (found) void this.#ask(found);
    });
    effect(() => {
      const found = this.inspection();
      this.contrast.found.set({});
      if (found)
        void this.contrast
          .read(found, this.page(), this.width(), (state) => this.#answers.forcedStates(found, state))
          .then((read) => {
            if (this.inspection() === found) this.contrast.found.set(read);
          });
    });
    effect((onCleanup) => {
      const from = this.#cutFrom();
      if (!this.#isLarge() || from.target === '') return;
      const stop = new AbortController();
      onCleanup(() => stop.abort());
      void this.#decide(from, stop.signal);
    });
    effect((onCleanup) => {
      if (!this.drawn() || !this.inspection() || this.cut() === undefined) return;
      const timer = setInterval(() => {
        if (this.loaded() >= MOST_TILES) clearInterval(timer);
        else this.loaded.update((count) => count + 1);
      }, NEXT_TILE_MS);
      onCleanup(() => clearInterval(timer));
    });
  }

  /** Where a cut did not come out as the page is: each tile may say so, and of a cut that is gone already. */
  protected drawWhole(untrue: PageCut): void {
    this.#decided.update((decided) => (decided?.cut === untrue ? { ...decided, cut: null } : decided));
  }

  protected headOf({ carrier }: Spoken<Inspection>, state: OverrideState): string {
    const words = carrier?.heads[state] ?? '';
    return words.charAt(0).toUpperCase() + words.slice(1);
  }

  /** After what is being drawn, a few elements at a time. */
  async #decide(from: CutFrom, stop: AbortSignal): Promise<void> {
    await new Promise((done) => setTimeout(done));
    if (stop.aborted || !from.drawn) return;
    const pause = createSlices(() => stop.throwIfAborted(), CUT_SLICE_MS);
    try {
      const cut = await cutAround(from.drawn, Number(from.target.split('/')[1]), pause);
      if (!stop.aborted) this.#decided.set({ from, cut });
    } catch (error) {
      if (!stop.aborted) throw error;
    }
  }

  async #ask(found: Spoken<Inspection>): Promise<void> {
    const entries = await Promise.all(
      found.states.map(async (state) => [state, await this.#answers.forcedStates(found, state)] as const),
    );
    this.forced.set(Object.fromEntries(entries));
  }
}
