import { ChangeDetectionStrategy, Component, computed, effect, inject, input, numberAttribute, signal, untracked } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { colorOfValue, customPropertyOf, hexOf, valueWords, type OverrideState, type OverrideValue } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { combineLatest, debounceTime } from 'rxjs';
import type { ForcedStates } from '../shared/engine/engine-api';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import { BenchStore, WIDTHS } from './bench-store';
import { ROW_WORDS, STATE_WORDS } from './change-label';
import { compareColors, type ColorDifference } from './color-check';
import type { FrameDocument } from '../shared/frame/frame-document';
import { PageFrame } from '../shared/frame/page-frame';
import { LineageBar } from './lineage-bar';
import { PartsList } from './parts-list';
import { PliesList } from './plies-list';
import { ReachSwitch } from './reach-switch';
import { StateStrip } from './state-strip';
import { StatesGrid } from './states-grid';
import { ValuePicker } from './value-picker';
import { VerdictBar } from './verdict-bar';
import { WrittenCss } from './written-css';

/** The Bench: the page, what paints it in every state, and the override being written. */
@Component({
  selector: 'uv-bench-page',
  imports: [Button, FormsModule, LineageBar, PageFrame, PartsList, PliesList, ReachSwitch, Select, SelectButton, StateStrip, StatesGrid, ValuePicker, VerdictBar, WrittenCss],
  providers: [BenchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
})
export class BenchPage {
  /** The spot a link leads to: page, element, pseudo-element, property and state. */
  readonly page = input(undefined, { transform: numberAttribute });
  readonly element = input(undefined, { transform: numberAttribute });
  readonly pseudo = input('');
  readonly property = input('');
  readonly state = input('');

  protected readonly site = inject(SiteStore);
  protected readonly bench = inject(BenchStore);
  readonly #engine = inject(Engine);
  readonly #frame = signal<FrameDocument | null>(null);

  protected readonly widths = WIDTHS.map((width) => ({ width, label: String(width) }));
  protected readonly zooms = [{ zoom: 0, label: 'Fit' }, { zoom: 0.5, label: '50 %' }, { zoom: 0.75, label: '75 %' }, { zoom: 1, label: '100 %' }];
  protected readonly zoom = signal(0);
  protected readonly forced = signal<ForcedStates>([]);
  protected readonly differences = signal<readonly ColorDifference[]>([]);
  protected readonly isDrawn = computed(() => this.#frame() !== null);

  readonly #url = computed(() => this.bench.framed().url);
  protected readonly pliesHeading = computed(() => {
    const { row, state } = this.bench.cell();
    return `Why ${STATE_WORDS[state].toLowerCase()} ${ROW_WORDS[row].toLowerCase()} is this colour`;
  });
  protected readonly pickerHeading = computed(() => `${STATE_WORDS[this.bench.cell().state]} ${ROW_WORDS[this.bench.cell().row].toLowerCase()} becomes`);
  protected readonly currentValue = computed<OverrideValue | null>(() => this.bench.cellOverrides().at(-1)?.value ?? null);
  /** Our values in words, by the CSS they compile to. */
  protected readonly valueNames = computed(() => {
    const palette = this.site.palette();
    const prefix = this.site.site()?.prefix ?? '';
    return new Map(this.site.overrides().flatMap(({ value }) => {
      const property = customPropertyOf(value, palette, prefix);
      const color = colorOfValue(value, palette);
      return property && color ? [[`var(${property.name})`, { words: valueWords({ palette }, value), hex: hexOf(color) }] as const] : [];
    }));
  });
  protected readonly kindWord = computed(() => {
    const selector = this.bench.inspection()?.lineage.at(-1)?.label ?? '';
    const tag = /^[a-z0-9]+/.exec(selector)?.[0] ?? '';
    return ({ a: 'links', button: 'buttons', input: 'fields', h1: 'headings', h2: 'headings', h3: 'headings', p: 'paragraphs' } as Record<string, string>)[tag] ?? '';
  });
  protected readonly differenceText = computed(() => {
    const [first] = this.differences();
    return first ? `Element ${first.element}, ${first.property}: reckoned ${first.core}, the browser paints ${first.frame}.` : '';
  });

  constructor() {
    effect(() => {
      const [page, element] = [this.page() ?? NaN, this.element() ?? NaN];
      if (Number.isNaN(page) || Number.isNaN(element)) return;
      const spot = { page, element, pseudo: this.pseudo() ?? '', property: this.property() ?? '', state: this.state() ?? '' };
      untracked(() => this.bench.showSpot(spot));
    });
    effect(() => {
      const target = this.bench.target();
      const { state } = this.bench.cell();
      if (!target) this.forced.set([]);
      else void this.bench.forcedStates(target, state).then((states) => this.forced.set(states));
    });
    effect(() => {
      this.#url();
      this.#frame.set(null);
    });
    combineLatest([toObservable(this.#frame), toObservable(this.site.veneer), toObservable(this.bench.width), toObservable(this.forced)])
      .pipe(debounceTime(400), takeUntilDestroyed())
      .subscribe(([frame]) => void this.#check(frame));
  }

  protected onReady(frame: FrameDocument): void {
    this.#frame.set(frame);
  }

  protected chooseState(state: OverrideState): void {
    this.bench.chooseCell({ ...this.bench.cell(), state });
  }

  /** The core's colours at rest are held against what the frame's engine computed. */
  async #check(frame: FrameDocument | null): Promise<void> {
    if (!frame || this.forced().length > 0) return;
    const veneer = this.site.veneer();
    const colors = await this.#engine.remote.colors(this.bench.pageId(), this.bench.width());
    const differences = await compareColors(frame, colors, () => this.#frame() !== frame || this.site.veneer() !== veneer);
    if (this.#frame() === frame) this.differences.set(differences);
  }
}
