import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import type { SightDocument } from '@upper-veneer/contract';
import type { SeenElement } from '@upper-veneer/core';

/** The page as it is now, drawn; whatever the pointer is over is outlined, and chosen by a press. */
@Component({
  selector: 'uv-sight-picture',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="mat uv-scroll">
      <div class="sheet" tabindex="0" role="application" aria-label="The page as it is now; arrows lead from one thing on it to the next, Enter chooses" i18n-aria-label (keydown)="walk($event)" (blur)="over.set(null)" [style.aspect-ratio]="sight().width + ' / ' + sight().height" [style.max-width.px]="sight().width" (pointermove)="over.set(at($event))" (pointerleave)="over.set(null)" (click)="press($event)">
        <img [src]="sight().picture" alt="" draggable="false" />
        @if (over(); as seen) { <span class="mark" [style]="placeOf(seen)"><span class="uv-mono">{{ seen.name }}</span></span> }
        <span class="uv-hidden" aria-live="polite">{{ said() }}</span>
        @if (chosen(); as seen) { <span class="mark chosen" [hidden]="!isInWindow(seen)" [style]="placeOf(seen)"></span> }
      </div>
    </div>
  `,
  styles: `
    :host { display: block; min-height: 0; min-width: 0; }
    .mat { height: 100%; padding: 14px; background: var(--uv-mat); overflow: auto; }
    .sheet { position: relative; width: 100%; margin: 0 auto; cursor: crosshair; }
    img { display: block; width: 100%; height: 100%; user-select: none; }
    .mark { position: absolute; outline: 2px solid #fff; box-shadow: 0 0 0 3px #000, inset 0 0 0 1px #000; pointer-events: none; }
    .mark .uv-mono { position: absolute; left: -1px; bottom: 100%; max-width: 320px; margin-bottom: 4px; padding: 1px 5px; overflow: hidden; background: #000; color: #fff; font-size: 12px; text-overflow: ellipsis; white-space: nowrap; }
    .chosen { outline: 3px dashed #fff; box-shadow: 0 0 0 4px #000; }
  `,
})
export class SightPicture {
  readonly sight = input.required<SightDocument>();
  readonly chosen = input<SeenElement | null>(null);
  readonly picked = output<SeenElement>();
  protected readonly over = signal<SeenElement | null>(null);
  /** What the keyboard has come to. */
  protected readonly said = signal('');
  readonly #inWindow = computed(() => {
    const { elements, width, height } = this.sight();
    return elements.filter(
      ({ box }) => box.x < width && box.y < height && box.x + box.width > 0 && box.y + box.height > 0,
    );
  });
  readonly #smallestFirst = computed(() =>
    [...this.#inWindow()].sort((a, b) => a.box.width * a.box.height - b.box.width * b.box.height),
  );

  /** The smallest of what is under the pointer. */
  protected at({ clientX, clientY, currentTarget }: MouseEvent): SeenElement | null {
    const sheet = (currentTarget as HTMLElement).getBoundingClientRect();
    const { width, height } = this.sight();
    const [x, y] = [((clientX - sheet.left) * width) / sheet.width, ((clientY - sheet.top) * height) / sheet.height];
    return (
      this.#smallestFirst().find(
        ({ box }) => x >= box.x && x < box.x + box.width && y >= box.y && y < box.y + box.height,
      ) ?? null
    );
  }

  /** Arrows go through what is there in its order. */
  protected walk(event: KeyboardEvent): void {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    const elements = this.#inWindow();
    const over = this.over();
    if (step !== undefined && elements.length > 0) {
      event.preventDefault();
      const at = over ? elements.indexOf(over) : step > 0 ? -1 : 0;
      const next = elements[(at + step + elements.length) % elements.length];
      this.over.set(next);
      this.said.set(next.name);
    } else if (event.key === 'Enter' && over) {
      event.preventDefault();
      this.picked.emit(over);
    }
  }

  protected press(event: MouseEvent): void {
    const seen = this.at(event);
    if (seen) this.picked.emit(seen);
  }

  protected isInWindow(seen: SeenElement): boolean {
    return this.#inWindow().includes(seen);
  }

  protected placeOf({ box }: SeenElement): Readonly<Record<string, string>> {
    const { width, height } = this.sight();
    return {
      left: `${(100 * box.x) / width}%`,
      top: `${(100 * box.y) / height}%`,
      width: `${(100 * box.width) / width}%`,
      height: `${(100 * box.height) / height}%`,
    };
  }
}
