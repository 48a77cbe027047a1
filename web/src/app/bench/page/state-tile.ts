import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  DestroyRef,
  afterNextRender,
  type ElementRef,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { stateTold, type StripTile } from '@upper-veneer/core';
import { InTurn } from '../../shared/drawing/in-turn';
import type { ForcedStates, Target } from '../../shared/engine/engine-api';
import { StandingMark } from '../../shared/ui/standing-mark';
import { FrameDocument } from '../../shared/frame/frame-document';
import type { FramedPage } from '../../shared/frame/framed-page';
import { lookOf, type PageCut } from './page-cut';

const VIEW_HEIGHT = 800;
const MARGIN = 16;

/** The target drawn live in one state, cropped from its page, with its figures. */
@Component({
  selector: 'uv-state-tile',
  imports: [InTurn, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button type="button" class="head" [class.current]="isCurrent()" [attr.aria-pressed]="isCurrent()" (click)="chosen.emit()">{{ word() }}</button>
    <div class="view" #view>
      @if (isBegun()) {
        <ng-container *uvInTurn>
          @if (safeCut(); as cut) {
            <iframe
              #frame [title]="wordsOf('bench.target-state', { word: word() })" sandbox="allow-same-origin" tabindex="-1" scrolling="no"
              referrerpolicy="no-referrer" [srcdoc]="cut" [style.width.px]="width()" [style.height.px]="viewHeight"
              [style.transform]="transform()" [style.visibility]="isShown() ? null : 'hidden'" (load)="onLoad()"
            ></iframe>
          } @else {
            <iframe
              #frame [title]="wordsOf('bench.target-state', { word: word() })" sandbox="allow-same-origin" tabindex="-1" scrolling="no"
              referrerpolicy="no-referrer" [src]="safeUrl()" [style.width.px]="width()" [style.height.px]="viewHeight"
              [style.transform]="transform()" [style.visibility]="isShown() ? null : 'hidden'" (load)="onLoad()"
            ></iframe>
          }
        </ng-container>
      }
      <span class="shield"></span>
    </div>
    <div class="figures" [title]="basis()">
      <span>
        <uv-standing [standing]="standing()" />
        @if (tile().ratio !== null) {
          {{ ratioText() }} : 1
        } @else {
          <ng-container i18n> no text </ng-container>
        }
      </span>
      <span class="uv-soft note">{{ note() }}</span>
    </div>
  `,
  styles: `
    :host { display: grid; grid-template-rows: 26px minmax(0, 1fr) 42px; min-width: 0; border-right: 1px solid var(--uv-line); background: var(--uv-panel); }
    .head { padding: 0 10px; border: 0; background: var(--uv-bar); text-align: left; font-size: 12.5px; font-weight: 600; color: var(--uv-soft); cursor: pointer; }
    .head:hover { color: var(--uv-ink); }
    .head.current { background: var(--uv-black); color: var(--uv-on-black); }
    .head:focus-visible { position: relative; z-index: 2; }
    .view { position: relative; overflow: hidden; background: #fff; }
    iframe { position: absolute; left: 0; top: 0; border: 0; transform-origin: 0 0; background: #fff; }
    .shield { position: absolute; inset: 0; }
    .figures { display: grid; align-content: center; padding: 0 10px; font-size: 12.5px; overflow: hidden; }
    .figures span { white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
    .note { font-size: 12px; }
  `,
})
export class StateTile {
  protected readonly wordsOf = wordsOf;

  readonly tile = input.required<Spoken<StripTile>>();
  readonly target = input.required<Target>();
  readonly page = input.required<FramedPage>();
  /** The page cut down to what a tile can show; `null` to draw it whole. */
  readonly cut = input<PageCut | null>(null);
  /** Whether the page is still cut for the target before, which is not to be seen beside the figures of this one. */
  readonly isBehind = input(false);
  readonly width = input.required<number>();
  readonly forced = input.required<ForcedStates>();
  /** Contrast with the picture the text stands on; `null` where it stands on none. */
  readonly overPicture = input<number | null>(null);
  /** What the state is called where another element brings it about. */
  readonly head = input('');
  readonly isCurrent = input(false);
  /** Whether its turn to load has come. */
  readonly isLoaded = input(true);
  readonly chosen = output();
  /** Emits where the target does not come out of the cut as it is on the page. */
  readonly untrue = output<PageCut>();

  readonly #sanitizer = inject(DomSanitizer);
  private readonly viewElement = viewChild.required<ElementRef<HTMLElement>>('view');
  private readonly frameElement = viewChild<ElementRef<HTMLIFrameElement>>('frame');
  readonly #frame = signal<FrameDocument | null>(null);
  #held: FrameDocument | null = null;
  readonly #url = computed(() => this.page().url);
  /** Counts changes of the tile's size, after which it is cropped anew. */
  readonly #sized = signal(0);

  /** Nothing is loaded for the target before; what is loaded already is kept, since it may do for this one. */
  protected readonly isBegun = linkedSignal<boolean, boolean>({
    source: () => this.isLoaded() && !this.isBehind(),
    computation: (may, before) => may || (this.isLoaded() && before?.value === true),
  });
  protected readonly viewHeight = VIEW_HEIGHT;
  protected readonly safeUrl = computed(() => this.#sanitizer.bypassSecurityTrustResourceUrl(this.#url()));
  protected readonly safeCut = computed(() => {
    const cut = this.cut();
    return cut === null ? null : this.#sanitizer.bypassSecurityTrustHtml(cut.html);
  });
  protected readonly transform = signal('');
  protected readonly isShown = computed(() => this.#frame() !== null && !this.isBehind());
  protected readonly word = computed(() => this.head() || say(stateTold(this.tile().state)));
  // Rounded down: 4.49 must not read as 4.5.
  protected readonly ratioText = computed(() =>
    (Math.floor((this.overPicture() ?? this.tile().ratio ?? 0) * 10) / 10).toFixed(1),
  );
  protected readonly standing = computed(() => {
    const over = this.overPicture();
    return over === null ? this.tile().standing : over < this.tile().wanted ? 'fails' : 'holds';
  });
  protected readonly note = computed(() => {
    const over = this.overPicture();
    return over === null
      ? this.tile().note
      : over < this.tile().wanted
        ? wordsOf('bench.picture-needs-1', { wanted: this.tile().wanted })
        : wordsOf('bench.picture-its-worst');
  });
  protected readonly basis = computed(() =>
    this.overPicture() === null
      ? this.tile().basis
      : wordsOf('bench.read-from-pixels-picture', { wanted: this.tile().wanted }),
  );

  constructor() {
    const destroyRef = inject(DestroyRef);
    effect(() => {
      this.#url();
      this.cut();
      this.#frame.set(null);
    });
    afterNextRender(() => {
      const observer = new ResizeObserver(() => this.#sized.update((count) => count + 1));
      observer.observe(this.viewElement().nativeElement);
      destroyRef.onDestroy(() => observer.disconnect());
    });
    effect(() => {
      const page = this.#frame();
      this.#sized();
      if (!page || this.isBehind()) return;
      page.show(this.page());
      this.#hold(page, this.cut());
      page.force(this.forced());
      page.select(this.target().pseudo === 'selection' ? this.target().element : null);
      this.#crop(page, this.target().element);
    });
  }

  protected onLoad(): void {
    const content = this.frameElement()?.nativeElement.contentDocument;
    if (content?.documentElement.hasAttribute('data-uv-n'))
      this.#frame.set(new FrameDocument(content, this.page().veneerPlace));
  }

  /** Holds a cut against the page, once it is loaded and nothing is forced yet. */
  #hold(page: FrameDocument, cut: PageCut | null): void {
    if (this.#held === page) return;
    this.#held = page;
    if (cut !== null && lookOf(page, this.target().element) !== cut.look) this.untrue.emit(cut);
  }

  /** Moves the page under the tile's window so that the target is in its middle, as large as fits. */
  #crop(page: FrameDocument, number: number): void {
    const scroller = page.document.defaultView;
    const first = page.boxOf(number);
    if (!scroller || !first) return;
    scroller.scrollBy({ top: first.top - VIEW_HEIGHT / 3 });
    const box = page.boxOf(number) ?? first;
    const { clientWidth, clientHeight } = this.viewElement().nativeElement;
    const scale = Math.min(
      1,
      Math.max(0.3, Math.min((clientWidth - MARGIN) / box.width, (clientHeight - MARGIN) / box.height)),
    );
    const middleX = Math.min(box.left + box.width / 2, box.left + clientWidth / scale / 2);
    const middleY = Math.min(box.top + box.height / 2, box.top + clientHeight / scale / 2);
    this.transform.set(
      `translate(${clientWidth / 2 - middleX * scale}px, ${clientHeight / 2 - middleY * scale}px) scale(${scale})`,
    );
  }
}
