import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  type ElementRef,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChild,
  DestroyRef,
} from '@angular/core';
import type { PixelBox } from '@upper-veneer/core';
import { FormsModule } from '@angular/forms';
import { Select } from 'primeng/select';
import { SelectButton } from 'primeng/selectbutton';
import { PictureDesk } from '../../shared/picture/picture-desk';
import type { PickedColor } from '../../shared/picture/picture-api';

/** How a colour is read: one pixel, the average of a square, or the ink of a text in a box. */
export type LoupeMode = 'pixel' | 'square' | 'text';

/** Pixels the magnified view reaches to each side. */
const REACH = 6;
const MAGNIFIED = 9;

interface Point {
  readonly x: number;
  readonly y: number;
}

/** A picture under the loupe: pointing magnifies, a press picks; for text a box is drawn around it. */
@Component({
  selector: 'uv-loupe',
  imports: [FormsModule, Select, SelectButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="modes">
      <p-selectbutton [options]="modes" optionLabel="label" optionValue="mode" [ngModel]="mode()" (ngModelChange)="mode.set($event)" [allowEmpty]="false" size="small" aria-label="What the loupe reads" i18n-aria-label />
      @if (mode() === 'square') {
        <p-select
          [options]="sides" [ngModel]="side()" (ngModelChange)="side.set($event)" size="small"
          ariaLabel="Side of the square, pixels" i18n-ariaLabel />
      }
    </div>
    <div class="view">
      <div class="stage uv-scroll" #stage role="application" tabindex="0" [class.tall]="fit() === 'width'" [attr.aria-label]="words()" (pointermove)="move($event)" (pointerdown)="press($event)" (pointerup)="release($event)" (pointerleave)="leave()" (keydown)="key($event)">
        <div class="sheet">
          <canvas #canvas></canvas>
          @if (frame(); as box) {
            <span
              class="box" [style.left.px]="box.left" [style.top.px]="box.top" [style.width.px]="box.width"
              [style.height.px]="box.height"></span>
          }
        </div>
      </div>
      @if (at(); as point) {
        <span class="glass" [class.left]="point.x > (picture()?.width ?? 0) / 2" [class.low]="fit() === 'all' && point.y < (picture()?.height ?? 0) / 2"><canvas #glass [width]="magnified * (2 * reach + 1)" [height]="magnified * (2 * reach + 1)"></canvas><span class="uv-mono">{{ hex() }}</span></span>
      }
    </div>
    <p class="uv-soft" aria-live="polite">{{ note() }}</p>
  `,
  styles: `
    :host { display: grid; gap: 6px; min-height: 0; }
    .modes { display: flex; gap: 6px; align-items: center; }
    .view { position: relative; min-height: 0; }
    .stage { display: grid; place-items: center; height: 196px; border: 1px solid var(--uv-line-strong); background: repeating-conic-gradient(#ccc 0 25%, #fff 0 50%) 0 0 / 14px 14px; cursor: crosshair; touch-action: none; }
    .stage:not(.tall) { overflow: hidden; }
    .tall { place-items: start center; }
    .sheet { position: relative; }
    canvas { display: block; }
    :host-context(.large) .stage { height: min(68vh, 620px); }
    .box { position: absolute; box-shadow: 0 0 0 1px #fff, 0 0 0 2px #000; pointer-events: none; }
    .glass { position: absolute; right: 4px; top: 4px; display: grid; background: #000; color: #fff; border: 1px solid #000; box-shadow: 0 0 0 1px #fff; font-size: 12px; text-align: center; pointer-events: none; }
    .glass.left { right: auto; left: 4px; }
    .glass.low { top: auto; bottom: 4px; }
    .glass canvas { display: block; image-rendering: pixelated; background: repeating-conic-gradient(#ccc 0 25%, #fff 0 50%) 0 0 / 8px 8px; }
    p { min-height: 17px; font-size: 12px; }
  `,
})
export class Loupe {
  readonly #desk = inject(PictureDesk);
  readonly picked = output<PickedColor>();
  /** Whether all of the picture is seen, or its full width, scrolled. */
  readonly fit = input<'all' | 'width'>('all');
  /** Mode it starts in. */
  readonly startMode = input<LoupeMode>('pixel');

  private readonly stageElement = viewChild.required<ElementRef<HTMLElement>>('stage');
  private readonly canvasElement = viewChild.required<ElementRef<HTMLCanvasElement>>('canvas');
  private readonly glassElement = viewChild<ElementRef<HTMLCanvasElement>>('glass');

  protected readonly modes = [
    { mode: 'pixel', label: wordsOf('palette.pixel') },
    { mode: 'square', label: wordsOf('palette.average') },
    { mode: 'text', label: wordsOf('palette.ink-text') },
  ];
  protected readonly sides = [3, 5, 11, 25, 51];
  protected readonly magnified = MAGNIFIED;
  protected readonly reach = REACH;
  protected readonly mode = signal<LoupeMode>('pixel');
  protected readonly side = signal(5);
  protected readonly picture = this.#desk.picture;
  /** Pixel under the pointer. */
  protected readonly at = signal<Point | null>(null);
  protected readonly hex = signal('');
  protected readonly note = signal('');
  /** Where a box was begun. */
  readonly #start = signal<Point | null>(null);
  readonly #size = signal({ width: 280, height: 196 });
  #asked = 0;

  /** CSS px that a pixel of the picture takes. */
  readonly #scale = computed(() => {
    const picture = this.picture();
    if (!picture) return 1;
    return this.fit() === 'width'
      ? Math.min(this.#size().width / picture.width, 1)
      : Math.min(this.#size().width / picture.width, this.#size().height / picture.height, 12);
  });
  readonly #box = computed<PixelBox | null>(() => {
    const point = this.at();
    const start = this.#start();
    if (!point) return null;
    if (this.mode() === 'text')
      return start
        ? {
            left: Math.min(start.x, point.x),
            top: Math.min(start.y, point.y),
            width: Math.abs(point.x - start.x) + 1,
            height: Math.abs(point.y - start.y) + 1,
          }
        : null;
    const side = this.mode() === 'square' ? this.side() : 1;
    return { left: point.x - (side - 1) / 2, top: point.y - (side - 1) / 2, width: side, height: side };
  });
  protected readonly frame = computed(() => {
    const box = this.#box();
    const scale = this.#scale();
    return box
      ? {
          left: box.left * scale,
          top: box.top * scale,
          width: Math.max(2, box.width * scale),
          height: Math.max(2, box.height * scale),
        }
      : null;
  });
  protected readonly words = computed(() =>
    wordsOf('palette.point-press-pick-arrow', {
      name: this.picture()?.name ?? wordsOf('palette.picture'),
      mode: this.mode(),
    }),
  );

  constructor() {
    const destroyRef = inject(DestroyRef);
    afterNextRender(() => {
      this.mode.set(this.startMode());
      const observer = new ResizeObserver(([entry]) =>
        this.#size.set({ width: entry.contentRect.width, height: entry.contentRect.height }),
      );
      observer.observe(this.stageElement().nativeElement);
      destroyRef.onDestroy(() => observer.disconnect());
    });
    effect(() => {
      const picture = this.picture();
      this.at.set(null);
      this.#start.set(null);
      this.note.set('');
      if (!picture) return;
      const canvas = this.canvasElement().nativeElement;
      canvas.width = picture.shown.width;
      canvas.height = picture.shown.height;
      canvas.getContext('2d')?.drawImage(picture.shown, 0, 0);
    });
    effect(() => {
      const picture = this.picture();
      const canvas = this.canvasElement().nativeElement;
      if (picture)
        canvas.style.cssText = `width: ${picture.width * this.#scale()}px; height: ${picture.height * this.#scale()}px; image-rendering: ${this.#scale() > 2 ? 'pixelated' : 'auto'};`;
    });
    effect(() => {
      const point = this.at();
      if (point) void this.#magnify(point);
    });
  }

  protected move(event: PointerEvent): void {
    const point = this.#pointOf(event);
    const before = this.at();
    if (point?.x !== before?.x || point?.y !== before?.y) this.at.set(point);
  }

  protected press(event: PointerEvent): void {
    const point = this.#pointOf(event);
    if (!point) return;
    this.at.set(point);
    if (this.mode() === 'text') {
      this.#start.set(point);
      this.stageElement().nativeElement.setPointerCapture(event.pointerId);
    } else void this.#pick();
  }

  protected release(event: PointerEvent): void {
    if (this.mode() !== 'text' || !this.#start()) return;
    this.at.set(this.#pointOf(event) ?? this.at());
    void this.#pick();
  }

  protected leave(): void {
    if (!this.#start()) this.at.set(null);
  }

  protected key(event: KeyboardEvent): void {
    const picture = this.picture();
    if (!picture) return;
    const [dx, dy] = (
      { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, -1], ArrowDown: [0, 1] } as Readonly<
        Record<string, readonly [number, number]>
      >
    )[event.key] ?? [0, 0];
    if (dx !== 0 || dy !== 0) {
      event.preventDefault();
      const step = event.shiftKey ? 10 : 1;
      const from = this.at() ?? { x: Math.floor(picture.width / 2), y: Math.floor(picture.height / 2) };
      this.at.set({
        x: clamp(from.x + dx * step, picture.width - 1),
        y: clamp(from.y + dy * step, picture.height - 1),
      });
    } else if (event.key === 'Enter' && this.at()) {
      event.preventDefault();
      if (this.mode() === 'text' && !this.#start()) this.#start.set(this.at());
      else void this.#pick();
    } else if (event.key === 'Escape' && this.#start()) {
      event.stopPropagation();
      this.#start.set(null);
    }
  }

  async #pick(): Promise<void> {
    const box = this.#box();
    const mode = this.mode();
    this.#start.set(null);
    if (!box) return;
    const found = mode === 'text' ? await this.#desk.remote.inkOfText(box) : await this.#desk.remote.average(box);
    if (!found) {
      this.note.set(wordsOf('palette.box-holds-colour-only'));
      return;
    }
    this.note.set(wordsOf('palette.shelf', { hex: found.hex, basis: found.basis }));
    this.picked.emit(found);
  }

  async #magnify(point: Point): Promise<void> {
    const asked = (this.#asked += 1);
    const { data, hex } = await this.#desk.remote.around(point.x, point.y, REACH);
    if (asked !== this.#asked) return;
    this.hex.set(hex);
    const context = this.glassElement()?.nativeElement.getContext('2d');
    if (!context) return;
    const side = 2 * REACH + 1;
    context.clearRect(0, 0, side * MAGNIFIED, side * MAGNIFIED);
    for (let i = 0; i < side * side; i += 1) {
      const [r, g, b, a] = data.subarray(i * 4, i * 4 + 4);
      context.fillStyle = `rgb(${r} ${g} ${b} / ${a / 255})`;
      context.fillRect((i % side) * MAGNIFIED, Math.floor(i / side) * MAGNIFIED, MAGNIFIED, MAGNIFIED);
    }
    const half = this.mode() === 'square' ? Math.min(REACH, (this.side() - 1) / 2) : 0;
    const edge = (REACH - half) * MAGNIFIED;
    const width = (2 * half + 1) * MAGNIFIED;
    context.strokeStyle = '#fff';
    context.strokeRect(edge - 0.5, edge - 0.5, width + 1, width + 1);
    context.strokeStyle = '#000';
    context.strokeRect(edge - 1.5, edge - 1.5, width + 3, width + 3);
  }

  #pointOf(event: PointerEvent): Point | null {
    const picture = this.picture();
    if (!picture) return null;
    const bounds = this.canvasElement().nativeElement.getBoundingClientRect();
    const x = Math.floor((event.clientX - bounds.left) / this.#scale());
    const y = Math.floor((event.clientY - bounds.top) / this.#scale());
    if (this.#start()) return { x: clamp(x, picture.width - 1), y: clamp(y, picture.height - 1) };
    return x >= 0 && y >= 0 && x < picture.width && y < picture.height ? { x, y } : null;
  }
}

function clamp(value: number, most: number): number {
  return Math.max(0, Math.min(most, value));
}
