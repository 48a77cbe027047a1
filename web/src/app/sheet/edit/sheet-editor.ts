import { type Spoken, wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  Injector,
  afterNextRender,
  computed,
  inject,
  signal,
  viewChild,
} from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  cssOfValue,
  sheetOptionsOf,
  writtenValue,
  type OverrideValue,
  type SheetColor,
  type SnippetPut,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { debounceTime, filter } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import type { DrawnRule } from '../../shared/engine/sheet-api';
import type { FramedPage } from '../../shared/frame/framed-page';
import { PageFrame } from '../../shared/frame/page-frame';
import { ProofStore } from '../../shared/proof/proof-store';
import { SiteStore } from '../../shared/site/site-store';
import { ValuePicker } from '../../shared/ui/value-picker';
import { BecomesList } from './becomes-list';
import { CopyPiece } from './copy-piece';
import { SheetCode } from './sheet-code';
import { SheetEdit } from './sheet-edit';
import { SnippetDialog } from './snippet-dialog';

const WIDTH = 1280;
const PAUSE_MS = 120;

/** The sheet to type in, what of it becomes overrides and what is kept as it is written, and the page beside it. */
@Component({
  selector: 'uv-sheet-editor',
  imports: [BecomesList, Button, CopyPiece, PageFrame, SheetCode, SnippetDialog, ValuePicker],
  providers: [SheetEdit],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="left">
      <div class="strip">
        <span class="words" role="status"><strong>{{ words() }}</strong>&ngsp;<span class="uv-soft" title="What comes of it was held against the text: the same computed values on every page, in every state and width" i18n-title>{{ proofWords() }}</span></span>
        <uv-copy-piece [text]="edit.text()" [caret]="caret()" />
        <p-button label="Put CSS in…" i18n-label [outlined]="true" size="small" (onClick)="isPutting.set(true)" />
        <p-button label="Put back" i18n-label [text]="true" size="small" [disabled]="!edit.isDirty()" (onClick)="edit.putBack()" />
        <p-button [label]="edit.isTaking() ? wordsOf('sheet.taking-over') : wordsOf('sheet.take-over')" size="small" [disabled]="!canTake()" (onClick)="take()" title="Into the draft, as one step of undo" i18n-title />
      </div>
      @if (note() !== '') { <p class="told" role="status">{{ note() }}</p> }
      <uv-sheet-code [text]="edit.text()" [head]="edit.base()?.head ?? 0" [problems]="edit.problems()" (typed)="type($event)" (moved)="caret.set($event)" (pressed)="open($event)" (taken)="take()" (refused)="refuse()" />
      @if (hasRows()) {
        <uv-becomes-list
          class="uv-scroll" [text]="edit.text()" [problems]="edit.problems()" [reading]="edit.reading()"
          (chosen)="goTo($event)" />
      }
      @if (pressed(); as color) {
        <div class="picker" role="dialog" aria-label="Colour" i18n-aria-label [style.left.px]="color.left" [style.top.px]="color.top" (keydown.escape)="close()">
          <p class="of"><span class="uv-mono">{{ cssOf(color) }}</span><button type="button" aria-label="Close" i18n-aria-label (click)="close()">×</button></p>
          <uv-value-picker [palette]="site.palette()" [current]="valueOf(color)" [cell]="color.start" (picked)="pick($event)" />
        </div>
      }
    </div>
    <section class="beside" aria-label="The page with what is typed" i18n-aria-label>
      <div class="rule">
        @if (rule(); as rule) {
          <p class="selector uv-mono">
            @for (around of rule.within; track $index) {
              <span class="uv-soft">{{ around }} </span>
            }
            {{ rule.selector }}
          </p>
          <p class="uv-soft counts">{{ countsOf(rule) }}</p>
          @if (rule.beyond; as reason) { <p i18n>Own CSS: it {{ reason }}.</p> }
          @for (gloss of rule.gloss; track $index) { <p>{{ gloss }}</p> }
        } @else {
          <p
            class="uv-soft"
            i18n>Put the caret in a rule: what it matches is lit here. Click on the page for the rules that style what is there.</p>
        }
      </div>
      @if (framed(); as page) {
        <uv-page-frame [page]="page" [width]="width" [reached]="lit()" [forced]="rule()?.picture?.forced ?? []" [target]="target()" (chosen)="find($event)" />
      }
    </section>
    @if (isPutting()) { <uv-snippet-dialog [text]="edit.text()" (made)="putIn($event)" (closed)="isPutting.set(false)" /> }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 1fr); min-width: 0; min-height: 0; overflow: hidden; }
    .left { position: relative; display: flex; flex-direction: column; min-width: 0; min-height: 0; }
    .strip { display: flex; flex-wrap: wrap; align-items: center; gap: 6px 8px; padding: 6px 12px; border-bottom: 1px solid var(--uv-line); background: var(--uv-panel); }
    .words { flex: 1 1 220px; font-size: 12.5px; }
    .words strong { margin-right: 6px; }
    .told { padding: 5px 12px; border-bottom: 1px solid var(--uv-line); border-left: 4px solid var(--uv-ink); background: var(--uv-bar); font-size: 12.5px; }
    uv-sheet-code { flex: 1; }
    uv-becomes-list { flex: none; max-height: 31%; border-top: 1px solid var(--uv-line-strong); background: var(--uv-panel); }
    .picker { position: absolute; z-index: 5; width: min(430px, 96%); padding-bottom: 4px; border: 1px solid var(--uv-line-strong); background: var(--uv-panel); box-shadow: 0 4px 18px rgb(0 0 0 / 25%); }
    .of { display: flex; justify-content: space-between; align-items: center; gap: 8px; padding: 4px 6px 4px 16px; font-size: 12.5px; overflow-wrap: anywhere; }
    .of button { width: 26px; height: 26px; border: 0; background: none; color: inherit; font-size: 16px; cursor: pointer; }
    .beside { display: grid; grid-template-rows: auto minmax(0, 1fr); min-width: 0; min-height: 0; border-left: 1px solid var(--uv-line-strong); }
    .rule { min-height: 76px; max-height: 150px; overflow-y: auto; padding: 8px 14px; background: var(--uv-panel); border-bottom: 1px solid var(--uv-line); font-size: 12.5px; }
    .rule p { margin: 0 0 2px; max-width: none; overflow-wrap: anywhere; }
    .selector { font-weight: 600; }
    @media (max-width: 900px) { :host { grid-template-columns: minmax(0, 1fr); overflow: visible; } .left { height: 70vh; } .beside { border: 0; border-top: 1px solid var(--uv-line-strong); height: 70vh; } }
  `,
})
export class SheetEditor {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly edit = inject(SheetEdit);
  readonly #engine = inject(Engine);
  readonly #proof = inject(ProofStore);
  readonly #injector = inject(Injector);
  private readonly code = viewChild.required(SheetCode);
  protected readonly width = WIDTH;
  protected readonly caret = signal(0);
  protected readonly isPutting = signal(false);
  readonly #own = signal('');
  protected readonly note = computed(
    () => this.#own() || this.edit.told() || (this.edit.isKept() ? '' : wordsOf('sheet.there-no-room-this')),
  );
  protected readonly hasRows = computed(() => {
    const reading = this.edit.reading();
    return this.edit.problems().length + (reading?.kept.length ?? 0) + (reading?.idle.length ?? 0) > 0;
  });
  protected readonly canTake = computed(
    () => this.edit.isDirty() && this.edit.reading() !== null && !this.edit.isStopped() && !this.edit.isTaking(),
  );
  /** What the text comes to, in words. */
  protected readonly words = computed(() => {
    if (!this.edit.base()) return wordsOf('sheet.reading-sheet');
    if (!this.edit.isDirty()) return wordsOf('sheet.as-draft');
    if (this.edit.isStopped()) return wordsOf('sheet.cannot-be-taken-over');
    const reading = this.edit.reading();
    if (!reading) return wordsOf('sheet.reading');
    const known = new Set(this.site.overrides().map(({ id }) => id));
    const changed = reading.put.filter(({ id }) => known.has(id)).length;
    const parts = [
      counted(changed, wordsOf('sheet.override-changes'), wordsOf('sheet.overrides-change')),
      counted(reading.put.length - changed, wordsOf('sheet.new'), wordsOf('sheet.are-new')),
      counted(reading.drop.length, 'goes', 'go'),
      reading.ownCss ? wordsOf('sheet.own-css-changes') : '',
    ].filter((part) => part !== '');
    return parts.length > 0 ? sentence(parts) : wordsOf('sheet.says-what-draft-says');
  });
  protected readonly proofWords = computed(() => {
    const reading = this.edit.reading();
    if (!this.edit.isDirty() || !reading || this.edit.isStopped()) return '';
    if (!reading.isProved) return wordsOf('sheet.not-proved-mean-what');
    const more = reading.unlooked > 0 ? wordsOf('sheet.rules-not-looked-for', { unlooked: reading.unlooked }) : '';
    return wordsOf('sheet.proved-mean-what-written', { more });
  });

  readonly #asked = computed(() => ({ text: this.edit.text(), caret: this.caret(), veneer: this.site.veneer() }));
  protected readonly rule = toSignal<Spoken<DrawnRule> | null, null>(
    toObservable(this.#asked).pipe(
      debounceTime(PAUSE_MS),
      filter(({ text }) => text !== ''),
      askEngine(this.#engine, ({ text, caret }, engine) => engine.ruleAt(text, caret, WIDTH), null),
    ),
    { initialValue: null },
  );
  readonly #frameCss = toSignal<string | null, null>(
    toObservable(this.edit.text).pipe(
      debounceTime(PAUSE_MS),
      askEngine<string, string | null>(this.#engine, (text, engine) => engine.framed(text), null),
    ),
    { initialValue: null },
  );
  readonly #first = computed(() => this.site.captured().at(0)?.id ?? null);
  protected readonly framed = computed((): FramedPage | null => {
    const css = this.#frameCss() ?? this.site.veneer().frameCss;
    const picture = this.rule()?.picture;
    if (picture) return this.#proof.pictured(picture, css);
    const first = this.#first();
    return first === null ? null : this.#proof.framed(first, css);
  });
  protected readonly pageId = computed(() => this.rule()?.picture?.pageId ?? this.#first());
  protected readonly lit = computed(() =>
    (this.rule()?.spots ?? []).filter(({ pageId }) => pageId === this.pageId()).map(({ element }) => element),
  );
  /** The first match, which is brought into sight. */
  protected readonly target = computed(() => {
    const picture = this.rule()?.picture;
    return picture ? { pageId: picture.pageId, element: picture.element, pseudo: '' } : null;
  });

  protected readonly pressed = signal<(SheetColor & { readonly left: number; readonly top: number }) | null>(null);

  protected type(text: string): void {
    this.#own.set('');
    this.edit.told.set('');
    this.edit.text.set(text);
    this.pressed.set(null);
  }

  protected take(): void {
    if (!this.canTake()) return;
    this.#own.set('');
    this.edit.take();
  }

  protected refuse(): void {
    this.#own.set(wordsOf('sheet.lines-top-are-written'));
  }

  protected goTo({ start, end }: { readonly start: number; readonly end: number }): void {
    this.code().goTo(start, end);
  }

  /** Opens the picker under a colour's chip. */
  protected open({ color, at }: { readonly color: SheetColor; readonly at: DOMRect }): void {
    if (color.start < (this.edit.base()?.head ?? 0)) {
      this.refuse();
      return;
    }
    const left = document.querySelector('uv-sheet-editor .left')?.getBoundingClientRect();
    if (!left) return;
    const room = left.height - 250;
    this.pressed.set({
      ...color,
      left: Math.max(4, Math.min(at.left - left.left, left.width - 440)),
      top: Math.max(4, at.bottom - left.top + 4 > room ? at.top - left.top - 250 : at.bottom - left.top + 4),
    });
    requestAnimationFrame(() => document.querySelector<HTMLElement>('uv-sheet-editor .picker button.swatch')?.focus());
  }

  protected close(): void {
    const color = this.pressed();
    this.pressed.set(null);
    if (color) this.code().goTo(color.start);
  }

  protected cssOf({ start, end }: SheetColor): string {
    return this.edit.text().slice(start, end);
  }

  protected valueOf(color: SheetColor): OverrideValue | null {
    const site = this.site.site();
    return site && writtenValue(this.cssOf(color), this.site.palette(), sheetOptionsOf(site));
  }

  protected pick(value: OverrideValue): void {
    const [site, color] = [this.site.site(), this.pressed()];
    if (!site || !color) return;
    this.code().replace(color.start, color.end, cssOfValue(value, this.site.palette(), sheetOptionsOf(site)));
  }

  /** Puts the caret into the last rule that styles an element of the page. */
  protected find(element: number): void {
    const pageId = this.pageId();
    if (pageId === null) return;
    this.#engine.remote.rulesOn(this.edit.text(), { pageId, element }).then(
      (offsets) => {
        const after = offsets.find((offset) => offset > this.caret()) ?? offsets.at(0);
        if (after === undefined) this.#own.set(wordsOf('sheet.no-rule-sheet-styles'));
        else {
          this.#own.set('');
          this.code().goTo(after);
        }
      },
      (error: unknown) => this.#engine.tell(error),
    );
  }

  protected putIn({ text, put, twice }: SnippetPut): void {
    this.isPutting.set(false);
    const before = this.edit.text();
    let first = 0;
    while (first < before.length && before[first] === text[first]) first += 1;
    this.type(text);
    afterNextRender(() => this.code().goTo(first + 1), { injector: this.#injector });
    this.#own.set(
      wordsOf('sheet.rule-was-rules-were', {
        put,
        twice: twice.length,
        twice2: twice.slice(0, 3),
        case: twice.length > 3 ? 'yes' : 'no',
      }),
    );
  }

  protected countsOf({ specificity, elements: count, spots, pages }: Spoken<DrawnRule>): string {
    if (!specificity) return wordsOf('sheet.browsers-drop');
    const lit = count > spots.length ? wordsOf('sheet.first-lit', { spots: spots.length }) : '';
    const elements = wordsOf('sheet.element-elements-page-pages', { count, pages, lit });
    return wordsOf('sheet.nothing-pages-here-specificity', { count, elements, specificity: specificity.join(',') });
  }
}

function counted(count: number, one: string, many: string): string {
  return count === 0 ? '' : `${count} ${count === 1 ? one : many}`;
}

function sentence(parts: readonly string[]): string {
  const text = parts.join(', ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}
