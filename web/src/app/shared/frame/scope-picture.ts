import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  type ElementRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { FrameDocument } from './frame-document';
import { FramedLooks } from './framed-looks';
import type { FramedPage } from './framed-page';
import type { ForcedStates } from '../engine/engine-api';

const MARGIN = 20;
const LEAST_SCALE = 0.35;

/** A scope drawn live, moved so that its first element fills the picture; places are lit in it. */
@Component({
  selector: 'uv-scope-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3 [title]="heading()">{{ heading() }}</h3>
    <div class="view" #view>
      <iframe #frame [title]="heading()" sandbox="allow-same-origin" tabindex="-1" scrolling="no" referrerpolicy="no-referrer" [src]="safeUrl()" [style.width.px]="width()" [style.height.px]="frameHeight()" [style.transform]="transform()" (load)="onLoad()"></iframe>
      <div class="shield">
        @for (box of boxes(); track $index) {
          <span
            class="lit" [style.left.px]="box.left" [style.top.px]="box.top" [style.width.px]="box.width"
            [style.height.px]="box.height"></span>
        }
      </div>
      @if (!isReady()) { <p class="loading" aria-live="polite" i18n>Drawing…</p> }
    </div>
  `,
  styles: `
    :host { display: grid; grid-template-rows: 28px minmax(0, 1fr); min-width: 0; min-height: 0; }
    h3 { align-self: center; padding: 0 12px; overflow: hidden; font-weight: 700; font-size: 12.5px; text-overflow: ellipsis; white-space: nowrap; }
    .view { position: relative; overflow: hidden; margin: 0 12px 12px; background: #fff; box-shadow: 0 1px 4px rgb(0 0 0 / 22%); }
    iframe { position: absolute; left: 0; top: 0; border: 0; transform-origin: 0 0; background: #fff; }
    .shield { position: absolute; inset: 0; overflow: hidden; }
    .lit { position: absolute; outline: 1px dashed #000; outline-offset: 2px; box-shadow: 0 0 0 2px #fff; }
    .loading { position: absolute; inset: 0; display: grid; place-content: center; background: var(--uv-paper); color: var(--uv-soft); }
  `,
})
export class ScopePicture {
  readonly heading = input.required<string>();
  readonly page = input.required<FramedPage>();
  readonly width = input.required<number>();
  /** Element that fills the picture. */
  readonly element = input.required<number>();
  readonly forced = input<ForcedStates>([]);
  /** Scale below which it is rather cut off than shown whole. */
  readonly leastScale = input(LEAST_SCALE);
  /** Elements that are lit. */
  readonly lit = input<readonly number[]>([]);

  readonly #sanitizer = inject(DomSanitizer);
  readonly #looks = inject(FramedLooks);
  private readonly viewElement = viewChild.required<ElementRef<HTMLElement>>('view');
  private readonly frameElement = viewChild.required<ElementRef<HTMLIFrameElement>>('frame');
  readonly #frame = signal<FrameDocument | null>(null);
  readonly #sized = signal(0);
  readonly #placed = signal({ x: 0, y: 0, scale: 1 });
  readonly #url = computed(() => this.page().url);
  protected readonly safeUrl = computed(() => this.#sanitizer.bypassSecurityTrustResourceUrl(this.#url()));
  protected readonly frameHeight = signal(800);
  protected readonly isReady = computed(() => this.#frame() !== null);
  protected readonly transform = computed(() => {
    const { x, y, scale } = this.#placed();
    return `translate(${x}px, ${y}px) scale(${scale})`;
  });
  protected readonly boxes = computed(() => {
    const frame = this.#frame();
    const { x, y, scale } = this.#placed();
    return this.lit().flatMap((number) => {
      const box = frame?.boxOf(number);
      return box && box.width > 0
        ? [
            {
              left: x + box.left * scale,
              top: y + box.top * scale,
              width: box.width * scale,
              height: box.height * scale,
            },
          ]
        : [];
    });
  });

  constructor() {
    const destroyRef = inject(DestroyRef);
    effect(() => this.#frame()?.dressFramed(this.#looks.css()));
    effect(() => {
      this.#url();
      this.#frame.set(null);
    });
    afterNextRender(() => {
      const observer = new ResizeObserver(() => this.#sized.update((count) => count + 1));
      observer.observe(this.viewElement().nativeElement);
      destroyRef.onDestroy(() => observer.disconnect());
    });
    effect(() => {
      const frame = this.#frame();
      this.#sized();
      if (!frame) return;
      frame.show(this.page());
      frame.force(this.forced());
      this.width();
      this.#place(frame, this.element());
    });
  }

  protected onLoad(): void {
    const content = this.frameElement().nativeElement.contentDocument;
    if (content?.documentElement.hasAttribute('data-uv-n'))
      this.#frame.set(new FrameDocument(content, this.page().veneerPlace));
  }

  /** Moves the page under the picture: as large as its width lets, from its top where it is taller. */
  #place(frame: FrameDocument, number: number): void {
    const box = frame.boxOf(number);
    if (!box) return;
    const { clientWidth, clientHeight } = this.viewElement().nativeElement;
    const height = Math.max(800, Math.ceil(Math.min(6000, frame.document.documentElement.scrollHeight)));
    if (height !== this.frameHeight()) {
      this.frameHeight.set(height);
      // What is fixed stands elsewhere in a frame of another height.
      requestAnimationFrame(() => this.#sized.update((count) => count + 1));
    }
    const within = Math.min((clientWidth - MARGIN) / box.width, (clientHeight - MARGIN) / box.height);
    const scale = Math.min(1, Math.max(this.leastScale(), within));
    const spare = { x: clientWidth - box.width * scale, y: clientHeight - box.height * scale };
    this.#placed.set({
      scale,
      x: Math.max(MARGIN / 2, spare.x / 2) - box.left * scale,
      // Nothing stands above a page's top.
      y: Math.min(0, Math.max(MARGIN / 2, spare.y / 2) - box.top * scale),
    });
  }
}
