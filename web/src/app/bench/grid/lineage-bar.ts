import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, ElementRef, computed, effect, inject, input, output } from '@angular/core';
import type { Inspection, LineageStep } from '@upper-veneer/core';
import { ColorChip } from '../../shared/ui/color-chip';
import { HoldButton } from '../../shared/ui/hold-button';

/** Most steps down that are shown, besides the selected text. */
const MOST_BELOW = 12;

/** The chain from the root to the target and what is in it, each with the fill it paints itself. */
@Component({
  selector: 'uv-lineage-bar',
  imports: [ColorChip, HoldButton],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '(keydown)': 'onKey($event)' },
  template: `
    @if (inspection(); as found) {
      <ol aria-label="Lineage; arrow keys walk up, down and across" i18n-aria-label>
        @for (step of steps(); track step.key) {
          <li [class.below]="step.isBelow">
            <button type="button" class="uv-mono" [class.current]="step.isTarget" [attr.aria-current]="step.isTarget" [tabindex]="step.isTarget ? 0 : -1" (click)="chosen.emit(step)" [title]="step.title">
              <span class="label" translate="no">{{ step.label }}</span><uv-color-chip [color]="step.fill" [hasImage]="step.hasImage" />
            </button>
            @if (step.isTarget) {
              <uv-hold-button
                [label]="wordsOf('bench.flash', { label: step.label })" (held)="flashed.emit(step)"
                (released)="released.emit()" />
            }
          </li>
        }
      </ol>
    } @else {
      <p class="uv-soft" i18n>Point at something on the page and click to choose it.</p>
    }
  `,
  styles: `
    :host { display: flex; align-items: center; height: 30px; background: var(--uv-panel); border-top: 1px solid var(--uv-line-strong); overflow-x: auto; scrollbar-width: none; }
    ol { display: flex; height: 100%; margin: 0; padding: 0; list-style: none; }
    li { display: flex; align-items: center; border-right: 1px solid var(--uv-line); }
    uv-hold-button { padding: 0 6px; }
    li.below > button { color: var(--uv-soft); }
    li > button { display: flex; align-items: center; gap: 7px; height: 100%; padding: 0 10px; border: 0; background: none; font-size: 12px; white-space: nowrap; cursor: pointer; }
    .label { max-width: 230px; overflow: hidden; text-overflow: ellipsis; }
    li > button:hover { background: var(--uv-bar); }
    li > button.current { background: var(--uv-black); color: var(--uv-on-black); }
    button:focus-visible { position: relative; z-index: 1; }
    p { padding: 0 12px; }
  `,
})
export class LineageBar {
  protected readonly wordsOf = wordsOf;

  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly inspection = input.required<Spoken<Inspection> | null>();
  readonly chosen = output<{ readonly element: number; readonly pseudo: string }>();
  /** Emits the step whose flash is held, and when it is let go. */
  readonly flashed = output<{ readonly element: number; readonly pseudo: string }>();
  readonly released = output();
  readonly walked = output<'up' | 'down' | 'previous' | 'next'>();

  protected readonly steps = computed(() => {
    const found = this.inspection();
    if (!found) return [];
    const toStep = (step: LineageStep, isBelow: boolean) => ({
      ...step,
      key: `${step.element}${step.pseudo}`,
      isBelow,
      isTarget: step.element === found.element && step.pseudo === found.pseudo,
      title: step.fill
        ? wordsOf('bench.paints-gradient-or-picture', {
            label: step.label,
            fill: step.fill,
            case: step.hasImage ? 'yes' : 'no',
          })
        : step.hasImage
          ? wordsOf('bench.paints-gradient-or-picture-alone', { label: step.label })
          : wordsOf('bench.paints-no-fill-its', { label: step.label }),
    });
    return [
      ...found.lineage.map((step) => toStep(step, false)),
      ...found.below
        .filter(({ pseudo }, i) => i < MOST_BELOW || pseudo === 'selection')
        .map((step) => toStep(step, true)),
    ];
  });

  constructor() {
    effect(() => {
      if (!this.inspection()) return;
      setTimeout(() => {
        const host = this.#host.nativeElement;
        const current = host.querySelector<HTMLElement>('.current');
        if (current) host.scrollTo({ left: current.offsetLeft + current.offsetWidth - host.clientWidth * 0.7 });
      });
    });
  }

  protected onKey(event: KeyboardEvent): void {
    const direction = (
      {
        ArrowUp: 'up',
        ArrowLeft: 'up',
        ArrowDown: 'down',
        ArrowRight: 'down',
        PageUp: 'previous',
        PageDown: 'next',
      } as const
    )[event.key];
    if (!direction) return;
    event.preventDefault();
    this.walked.emit(direction);
    setTimeout(() => this.#host.nativeElement.querySelector<HTMLElement>('.current')?.focus(), 120);
  }
}
