import { type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { colorOfCss, formatSpecificity, hexOf, type Ply, type Spot } from '@upper-veneer/core';
import type { ExplanationView } from '../../shared/engine/engine-api';
import { HoldButton } from '../../shared/ui/hold-button';
import { WordHint } from '../../shared/ui/word-hint';

/** The declarations that compete, as stepped boards, the one that shows on top. */
@Component({
  selector: 'uv-plies-list',
  imports: [HoldButton, WordHint],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <header>
      <h2>{{ heading() }}</h2>
      <ng-content />
      <span class="uv-soft" uvWord="ply" i18n>{{ boards().length }} {boards().length, plural, =1 {ply} other {plies}}</span>
    </header>
    @if (explanation(); as found) {
      @if (found.inheritedFrom; as from) {
        <p class="uv-soft note">
          <ng-container i18n>Inherited from <span class="uv-mono">{{ from.label }}</span>, where these compete.</ng-container>
          @if (followers().length > 0) {
            <ng-container i18n> Changed here it is this reach alone; </ng-container>
            <button
              type="button" (pointerenter)="shown.emit(followers())" (pointerleave)="shown.emit([])"
              (focus)="shown.emit(followers())" (blur)="shown.emit([])" (click)="there.emit(from.element)" i18n
            >changed there</button>
            <ng-container i18n> it is {{ followers().length }} {followers().length, plural, =1 {element} other {elements}}.</ng-container>
          }
        </p>
      }
      <ol>
        @for (board of boards(); track $index) {
          <li [style.margin-left.px]="board.indent" [class.top]="$first">
            <span class="chip" [class.unknown]="board.hex === null" [style.--chip]="board.hex ?? 'transparent'"></span>
            <span class="text">
              <span class="uv-mono value" [title]="board.title">{{ board.value }}</span>
              <span class="uv-soft from" [title]="board.selector">{{ board.from }}</span>
            </span>
            <span class="end">
              <span class="uv-mono specificity" title="Specificity: ids, classes, types" i18n-title>{{ board.specificity }}</span>
              @if (board.selector !== '') {
                <uv-hold-button
                  [label]="wordsOf('bench.flash-what-reaches', { selector: board.selector })" (held)="flashed.emit(board.selector)"
                  (released)="released.emit()"
                />
              }
            </span>
          </li>
        } @empty {
          <li class="top">
            <span class="chip unknown"></span>
            <span class="text">
              <span class="value uv-mono">{{ found.resolved }}</span>
              <span class="uv-soft from" i18n>Nothing declares it: the initial value.</span>
            </span>
          </li>
        }
      </ol>
      @for (lost of found.discarded; track $index) {
        <p class="lost"><span class="uv-mono">{{ lost.declaration }}</span><span class="uv-soft" i18n> thrown away: {{ lost.reason }}</span></p>
      }
    }
  `,
  styles: `
    :host { display: block; padding: 8px 16px; border-top: 1px solid var(--uv-line); }
    header { display: flex; justify-content: space-between; align-items: baseline; gap: 8px; margin-bottom: 7px; }
    h2 { font-weight: 700; }
    header > span { font-size: 12px; white-space: nowrap; }
    h2 { flex: 1; min-width: 0; }
    ol { margin: 0; padding: 0; list-style: none; }
    li { display: grid; grid-template-columns: 34px minmax(0, 1fr) auto; gap: 9px; align-items: center; min-height: 42px; padding-right: 9px; background: var(--uv-bar); border: 1px solid var(--uv-line); border-bottom: 4px solid var(--uv-board-edge); }
    li.top { background: var(--uv-paper); border-color: var(--uv-line-strong); border-bottom-color: var(--uv-line-strong); }
    .chip { align-self: stretch; background: linear-gradient(var(--chip), var(--chip)), repeating-conic-gradient(#bbb 0 25%, #fff 0 50%) 0 0 / 8px 8px; border-right: 1px solid var(--uv-line); }
    .chip.unknown { background: repeating-linear-gradient(135deg, var(--uv-line) 0 1px, transparent 1px 6px); }
    .text { display: grid; min-width: 0; padding: 3px 0; }
    .value, .from { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .value { font-size: 12.5px; }
    .from, .note, .lost { font-size: 12px; }
    .end { display: flex; align-items: center; gap: 7px; }
    .specificity { font-size: 12px; }
    .note { margin-bottom: 6px; }
    .note button { padding: 0; border: 0; background: none; color: var(--uv-ink); font: inherit; text-decoration: underline; cursor: pointer; }
    .lost { margin-top: 6px; overflow-wrap: anywhere; }
  `,
})
export class PliesList {
  protected readonly wordsOf = wordsOf;

  /** Emits the selector whose flash is held, and when it is let go. */
  readonly flashed = output<string>();
  readonly released = output();
  /** What follows the value where it is inherited from. */
  readonly followers = input<readonly Spot[]>([]);
  /** Emits elements to be outlined. */
  readonly shown = output<readonly Spot[]>();
  /** Emits the element that the value is inherited from, to be changed there. */
  readonly there = output<number>();
  readonly explanation = input.required<Spoken<ExplanationView> | null>();
  readonly heading = input.required<string>();
  /** Words for values of our own overrides, by CSS. */
  readonly names = input<ReadonlyMap<string, { readonly words: string; readonly hex: string }>>(new Map());

  protected readonly boards = computed(() =>
    (this.explanation()?.plies ?? []).map((ply, i) => {
      const ours = ply.source.isVeneer ? this.names().get(ply.value) : undefined;
      return {
        value: (ours?.words ?? ply.value) + (ply.important ? ' !important' : ''),
        hex: ours?.hex ?? hexOfPly(ply, i === 0 ? this.explanation()?.resolved : undefined),
        from: [sourceWords(ply), ply.under?.text].filter(Boolean).join(' · '),
        selector: ply.source.selector,
        title:
          ply.settled === null
            ? wordsOf('bench.invalid-once-its-variables', { declaration: ply.declaration })
            : ply.settled === ply.value
              ? ply.declaration
              : wordsOf('bench.that-is', { declaration: ply.declaration, settled: ply.settled }),
        specificity: ply.specificity ? formatSpecificity(ply.specificity) : '–',
        indent: Math.min(i * 10, 60),
      };
    }),
  );
}

function hexOfPly(ply: Spoken<Ply>, resolved: string | undefined): string | null {
  const color = colorOfCss(ply.settled ?? '') ?? (resolved === undefined ? null : colorOfCss(resolved));
  return color ? hexOf(color) : null;
}

function sourceWords({ source, layer, under }: Spoken<Ply>): string {
  switch (source.kind) {
    case 'style-attribute':
      return wordsOf('bench.its-style-attribute');
    case 'presentational-attribute':
      return wordsOf('bench.attribute-html');
    case 'browser':
      return wordsOf('bench.browser-default');
    case 'rule': {
      if (source.isVeneer) return wordsOf('bench.your-override', { selector: source.selector });
      return `${source.sheet.split('/').pop()} ${source.at?.line ?? ''}${layer && !under ? wordsOf('bench.layer', { layer }) : ''}`;
    }
  }
}
