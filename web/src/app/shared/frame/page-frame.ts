import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  ElementRef,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { NUMBER_ATTRIBUTE } from '@upper-veneer/core';
import type { ForcedStates, Target } from '../engine/engine-api';
import { FrameDocument } from './frame-document';
import { FramedLooks } from './framed-looks';
import type { FramedPage } from './framed-page';
import { type Box, outlinePath } from './outline-path';
import { PeelLine } from './peel-line';
import { troubleIn } from './trouble-in';

const EDGE = 14;

/** A page that has not loaded by then may not load, ms. */
const PATIENCE_MS = 20_000;

/** The page on its mat: pointing outlines and names what would be chosen, a click chooses. */
@Component({
  selector: 'uv-page-frame',
  imports: [PeelLine],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="stage" [style.width.px]="width() * scale()" [style.height.px]="stageHeight()">
      <iframe #frame title="The page being worked on" i18n-title sandbox="allow-same-origin" tabindex="-1" [attr.scrolling]="showsScrollbar() ? 'yes' : 'no'" referrerpolicy="no-referrer"
        [src]="safeUrl()" [style.width.px]="width()" [style.height.px]="stageHeight() / scale()" [style.transform]="'scale(' + scale() + ')'" (load)="onLoad()"></iframe>
      @if (peel() !== null) {
        <iframe #bare title="The page without the veneer" i18n-title sandbox="allow-same-origin" tabindex="-1" scrolling="no" referrerpolicy="no-referrer" [style.clip-path]="'inset(0 ' + (100 - 100 * (peel() ?? 0)) + '% 0 0)'"
          [src]="safeUrl()" [style.width.px]="width()" [style.height.px]="stageHeight() / scale()" [style.transform]="'scale(' + scale() + ')'" (load)="onBareLoad()"></iframe>
      }
      <div class="glass" #glass role="application" tabindex="0" aria-label="Page. Point at an element and click to choose it; arrow keys walk up, down and across." i18n-aria-label
        (pointermove)="onMove($event)" (pointerleave)="hovered.set(null)" (click)="onClick($event)" (wheel)="onWheel($event)" (keydown)="onKey($event)">
        @if (reachedBoxes().length > 0) {
          <svg class="reached" aria-hidden="true"><path class="under" [attr.d]="under()" /><path class="over" [attr.d]="over()" /></svg>
        }
        @if (chosenBox(); as box) {
          <span class="outline chosen" [style.left.px]="box.left" [style.top.px]="box.top" [style.width.px]="box.width" [style.height.px]="box.height"></span>
        }
        @if (hoverBox(); as box) {
          <span class="outline" [style.left.px]="box.left" [style.top.px]="box.top" [style.width.px]="box.width" [style.height.px]="box.height"></span>
        }
        @if (tag(); as tag) { <span class="tag uv-mono" [style.left.px]="tag.left" [style.top.px]="tag.top">{{ tag.text }}</span> }
      </div>
      @if (peel() !== null) { <uv-peel-line [at]="peel() ?? 0" (moved)="peeled.emit($event)" /> }
      @if (!isReady()) {
        <div class="loading" aria-live="polite">
          @if (trouble() === '') {
            <p i18n>Loading the page…</p>
          } @else {
            <p><strong i18n>This page could not be drawn.</strong> {{ trouble() }}</p>
            <button type="button" (click)="tryAgain()" i18n>Try again</button>
          }
        </div>
      }
    </div>
  `,
  styles: `
    :host { display: block; position: relative; overflow: hidden; background: var(--uv-mat); padding: ${EDGE}px ${EDGE}px 0; }
    .stage { position: relative; margin: 0 auto; overflow: hidden; background: #fff; box-shadow: 0 1px 6px rgb(0 0 0 / 25%); }
    iframe { position: absolute; left: 0; top: 0; border: 0; transform-origin: 0 0; background: #fff; }
    .glass { position: absolute; inset: 0; cursor: crosshair; overflow: hidden; touch-action: none; }
    .glass:focus-visible { outline: none; box-shadow: inset 0 0 0 2px var(--uv-ink), inset 0 0 0 4px var(--uv-paper); border-radius: 0; }
    .outline { position: absolute; border-radius: 2px; box-shadow: 0 0 0 1px #fff, 0 0 0 3px #000, 0 0 0 4px #fff; pointer-events: none; }
    .outline.chosen { box-shadow: 0 0 0 2px #fff, 0 0 0 5px #000, 0 0 0 6px #fff; }
    .reached { position: absolute; inset: 0; width: 100%; height: 100%; fill: none; pointer-events: none; }
    .under { stroke: #fff; stroke-width: 2px; }
    .over { stroke: #000; stroke-width: 1px; stroke-dasharray: 3 3; }
    .tag { position: absolute; max-width: 320px; padding: 2px 8px; background: #000; color: #fff; font-size: 12px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; pointer-events: none; box-shadow: 0 0 0 1px #fff; }
    .loading { position: absolute; inset: 0; display: grid; place-content: center; background: var(--uv-paper); color: var(--uv-soft); }
    .loading p { max-width: 440px; margin: 0 0 10px; }
    .loading strong { color: var(--uv-ink); }
    .loading button { justify-self: start; height: 28px; padding: 0 12px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); }
  `,
})
export class PageFrame {
  readonly page = input.required<FramedPage>();
  readonly width = input.required<number>();
  readonly target = input<Target | null>(null);
  readonly reached = input<readonly number[]>([]);
  readonly forced = input<ForcedStates>([]);
  /** Share of the page, from the left, that is shown without the veneer; `null` for none. */
  readonly peel = input<number | null>(null);
  /** Test colours laid over the page; `null` for none. */
  readonly flash = input<string | null>(null);
  /** Whether the page's own scrollbar is drawn, which takes its width from it. */
  readonly showsScrollbar = input(false);
  /** Whether a click asks what paints the pixel instead of choosing the topmost element. */
  readonly isProbing = input(false);
  /** `0` fits the page into the mat; else the scale itself. */
  readonly zoom = input(0);

  readonly chosen = output<number>();
  /** Emits what lies at a clicked point, topmost first, when asked what paints there. */
  readonly probed = output<readonly number[]>();
  readonly peeled = output<number>();
  readonly walked = output<'up' | 'down' | 'previous' | 'next'>();
  /** Emits when a page is loaded and dressed. */
  readonly ready = output<FrameDocument>();

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly #sanitizer = inject(DomSanitizer);
  readonly #looks = inject(FramedLooks);
  private readonly frameElement = viewChild.required<ElementRef<HTMLIFrameElement>>('frame');
  private readonly bareElement = viewChild<ElementRef<HTMLIFrameElement>>('bare');
  readonly #bare = signal<FrameDocument | null>(null);
  readonly #size = signal({ width: 600, height: 400 });
  readonly #frame = signal<FrameDocument | null>(null);
  /** Times the page was asked for again after it did not load. */
  readonly #tries = signal(0);
  readonly #url = computed(() => this.page().url + (this.#tries() === 0 ? '' : `&try=${this.#tries()}`));
  /** Counts what moves boxes about: scrolling, styles, sizes. */
  readonly #moved = signal(0);
  #pending: PointerEvent | null = null;

  protected readonly safeUrl = computed(() => this.#sanitizer.bypassSecurityTrustResourceUrl(this.#url()));
  /** Why the page does not show; empty while it is on its way. */
  protected readonly trouble = signal('');
  protected readonly isReady = computed(() => this.#frame() !== null);
  protected readonly scale = computed(() => this.zoom() || Math.min(1, (this.#size().width - 2 * EDGE) / this.width()));
  protected readonly stageHeight = computed(() => Math.max(100, this.#size().height - EDGE));
  protected readonly hovered = signal<number | null>(null);
  protected readonly hoverBox = computed(() =>
    this.hovered() === null || this.hovered() === this.target()?.element ? null : this.#boxOf(this.hovered()),
  );
  protected readonly chosenBox = computed(() => this.#boxOf(this.target()?.element ?? null));
  /** Those that are on the screen. */
  protected readonly reachedBoxes = computed(() => {
    const [right, bottom] = [this.width() * this.scale(), this.stageHeight()];
    return this.reached()
      .map((number) => this.#boxOf(number))
      .filter(
        (box): box is Box =>
          box !== null && box.left < right && box.top < bottom && box.left + box.width > 0 && box.top + box.height > 0,
      );
  });
  protected readonly under = computed(() => outlinePath(this.reachedBoxes(), 1));
  protected readonly over = computed(() => outlinePath(this.reachedBoxes(), 2.5));
  protected readonly tag = computed(() => {
    const number = this.hovered() ?? this.target()?.element ?? null;
    const box = this.#boxOf(number);
    const element = number === null ? null : this.#frame()?.element(number);
    if (!box || !element) return null;
    const pseudo = this.hovered() === null && this.target()?.pseudo ? `::${this.target()?.pseudo}` : '';
    const below = box.top + box.height + 7;
    return {
      left: Math.max(2, box.left),
      top: below < this.stageHeight() - 22 ? below : Math.max(2, box.top - 27),
      text: nameOf(element) + pseudo,
    };
  });

  constructor() {
    const observer = new ResizeObserver(([entry]) =>
      this.#size.set({ width: entry.contentRect.width + 2 * EDGE, height: entry.contentRect.height + EDGE }),
    );
    observer.observe(this.#host.nativeElement);
    inject(DestroyRef).onDestroy(() => observer.disconnect());
    effect((onCleanup) => {
      this.#url();
      this.#frame.set(null);
      this.hovered.set(null);
      this.trouble.set('');
      const late = setTimeout(() => this.trouble.set(wordsOf('screen.has-not-loaded-yet')), PATIENCE_MS);
      onCleanup(() => clearTimeout(late));
    });
    effect(() => {
      const page = this.#frame();
      if (!page) return;
      page.show(this.page());
      page.force(this.forced());
      this.#moved.update((count) => count + 1);
    });
    effect(() => this.#frame()?.dressFramed(this.#looks.css()));
    effect(() => this.#frame()?.flash(this.flash()));
    effect(() => this.#frame()?.showScrollbar(this.showsScrollbar()));
    // The page without the veneer goes along with the one that has it.
    effect(() => {
      this.#moved();
      const bare = this.#bare();
      const view = this.#frame()?.document.defaultView;
      if (this.peel() === null) this.#bare.set(null);
      else if (bare && view) bare.document.defaultView?.scrollTo(view.scrollX, view.scrollY);
    });
    effect(() => {
      const bare = this.#bare();
      bare?.show({ ...this.page(), frameCss: '' });
      bare?.force(this.forced());
    });
    effect(() => {
      this.scale();
      this.stageHeight();
      this.#moved.update((count) => count + 1);
    });
    effect(() => {
      const target = this.target();
      const page = this.#frame();
      page?.select(target?.pseudo === 'selection' ? target.element : null);
      if (target && page) this.#reveal(page, target.element);
    });
  }

  protected onLoad(): void {
    const content = this.frameElement().nativeElement.contentDocument;
    if (!content?.documentElement.hasAttribute('data-uv-n')) {
      // A frame may begin with an empty document of its own.
      if (content?.URL !== 'about:blank') this.trouble.set(troubleIn(content));
      return;
    }
    const page = new FrameDocument(content, this.page().veneerPlace);
    page.show(this.page());
    this.#frame.set(page);
    this.ready.emit(page);
  }

  protected tryAgain(): void {
    this.#tries.update((tries) => tries + 1);
  }

  protected onBareLoad(): void {
    const content = this.bareElement()?.nativeElement.contentDocument;
    if (content?.documentElement.hasAttribute('data-uv-n'))
      this.#bare.set(new FrameDocument(content, this.page().veneerPlace));
  }

  protected onMove(event: PointerEvent): void {
    const waiting = this.#pending !== null;
    this.#pending = event;
    if (waiting) return;
    requestAnimationFrame(() => {
      if (this.#pending) this.hovered.set(this.#numberAt(this.#pending));
      this.#pending = null;
    });
  }

  protected onClick(event: MouseEvent): void {
    if (this.isProbing() || event.altKey) {
      const [x, y] = this.#pointOf(event);
      const stack = this.#frame()?.stackAt(x, y) ?? [];
      if (stack.length > 0) this.probed.emit(stack);
      return;
    }
    const number = this.#numberAt(event);
    if (number !== null) this.chosen.emit(number);
  }

  protected onWheel(event: WheelEvent): void {
    event.preventDefault();
    this.#frame()?.document.defaultView?.scrollBy({
      top: event.deltaY / this.scale(),
      left: event.deltaX / this.scale(),
    });
    this.#moved.update((count) => count + 1);
  }

  protected onKey(event: KeyboardEvent): void {
    const direction = ({ ArrowUp: 'up', ArrowDown: 'down', ArrowLeft: 'previous', ArrowRight: 'next' } as const)[
      event.key
    ];
    if (direction) {
      event.preventDefault();
      this.hovered.set(null);
      // The first key chooses where the walk begins.
      const body = this.#frame()?.document.body.getAttribute(NUMBER_ATTRIBUTE);
      if (this.target() === null && body) this.chosen.emit(Number(body));
      else this.walked.emit(direction);
    } else if (event.key === 'PageDown' || event.key === 'PageUp') {
      event.preventDefault();
      this.#frame()?.document.defaultView?.scrollBy({
        top: (event.key === 'PageDown' ? 0.8 : -0.8) * (this.stageHeight() / this.scale()),
      });
      this.#moved.update((count) => count + 1);
    }
  }

  #numberAt(event: MouseEvent): number | null {
    return this.#frame()?.numberAt(...this.#pointOf(event)) ?? null;
  }

  /** A point of the frame's viewport, in its CSS px. */
  #pointOf(event: MouseEvent): [number, number] {
    const bounds = this.#host.nativeElement.querySelector('.glass')?.getBoundingClientRect();
    return [(event.clientX - (bounds?.left ?? 0)) / this.scale(), (event.clientY - (bounds?.top ?? 0)) / this.scale()];
  }

  #boxOf(number: number | null): Box | null {
    this.#moved();
    const box = number === null ? null : this.#frame()?.boxOf(number);
    if (!box) return null;
    const scale = this.scale();
    return { left: box.left * scale, top: box.top * scale, width: box.width * scale, height: box.height * scale };
  }

  /** Scrolls just as far as it takes to see the target. */
  #reveal(page: FrameDocument, number: number): void {
    const box = page.boxOf(number);
    const height = this.stageHeight() / this.scale();
    if (!box || (box.top >= 0 && box.bottom <= height) || box.height > height) return;
    page.document.defaultView?.scrollBy({ top: box.top - height / 3 });
    this.#moved.update((count) => count + 1);
  }
}

function nameOf(element: Element): string {
  if (element.id) return `${element.localName}#${element.id}`;
  return (
    element.localName +
    [...element.classList]
      .slice(0, 2)
      .map((name) => `.${name}`)
      .join('')
  );
}
