import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  Injector,
  afterNextRender,
  computed,
  inject,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import { compileRules, sheetOptionsOf, type Override } from '@upper-veneer/core';
import { SiteStore } from '../../shared/site/site-store';
import { RequestsStore } from '../../requests/requests-store';
import { SelectorEditor } from './selector-editor';

/** The rule that the chosen cell's override compiles to; its selector can be edited by hand. */
@Component({
  selector: 'uv-written-css',
  imports: [SelectorEditor],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (editing(); as override) {
      <uv-selector-editor [override]="override" (written)="edit(false); rewritten.emit({ override, selector: $event })" (closed)="edit(false)" />
    } @else {
      <pre class="uv-mono uv-scroll" [class.told]="why() !== ''" tabindex="0" aria-label="CSS being written" i18n-aria-label>{{ shown() || wordsOf('bench.nothing-written-for-this') }}</pre>
      @if (why() !== '') { <p class="why" [title]="why()">{{ why() }}</p> }
      @if (item(); as wish) {
        <button
          type="button" class="wish" [title]="wordsOf('bench.made-for', { words: wish.words })"
          (click)="requests.isOpen.set(true)" i18n>For: {{ wish.words }}</button>
      }
      @if (overrides().length > 0) {
        <button
          type="button"
          (click)="edit(true)">{{ overrides().at(-1)?.isByHand ? wordsOf('bench.selector-hand') : wordsOf('bench.edit-selector') }}</button>
      }
    }
  `,
  styles: `
    :host { display: block; position: relative; height: 66px; background: #1a1a1a; color: #f2f2f2; overflow: hidden; }
    pre { height: 66px; margin: 0; padding: 9px 16px; font-size: 12.5px; line-height: 1.45; white-space: pre-wrap; overflow-wrap: anywhere; }
    pre.told { padding-top: 5px; line-height: 1.3; }
    pre:focus-visible { outline: none; box-shadow: inset 0 0 0 2px #fff, inset 0 0 0 4px #000; }
    .why { position: absolute; inset: auto 0 0; margin: 0; padding: 1px 16px 3px; background: #1a1a1a; color: #c4c4c4; font-size: 12px; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
    .wish { right: 10px; top: auto; bottom: 6px; max-width: 60%; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    button { position: absolute; right: 10px; top: 8px; padding: 1px 8px; border: 1px solid #777; border-radius: 3px; background: #333; color: #f2f2f2; font-size: 12px; cursor: pointer; }
    button:focus-visible { outline: 2px solid #fff; }
  `,
})
export class WrittenCss {
  protected readonly wordsOf = wordsOf;

  readonly #store = inject(SiteStore);
  readonly overrides = input.required<readonly Override[]>();
  /** Why it says `!important`; empty where it does not. */
  readonly why = input('');
  protected readonly requests = inject(RequestsStore);
  /** The wish it was made for. */
  protected readonly item = computed(() => {
    const id = this.overrides().at(-1)?.id;
    return id === undefined ? null : this.requests.itemOf(id);
  });
  readonly rewritten = output<{ readonly override: Override; readonly selector: string }>();

  /** Closes itself when another override is looked at. */
  readonly #overrideId = computed(() => this.overrides().at(-1)?.id);
  protected readonly isEditing = linkedSignal({ source: this.#overrideId, computation: () => false });
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly #injector = inject(Injector);
  protected readonly editing = computed(() => (this.isEditing() ? (this.overrides().at(-1) ?? null) : null));
  /** Opens the editor with the focus in it, or closes it with the focus on what opened it. */
  protected edit(isEditing: boolean): void {
    this.isEditing.set(isEditing);
    afterNextRender(
      () => this.#host.nativeElement.querySelector<HTMLElement>(isEditing ? 'input' : 'button')?.focus(),
      { injector: this.#injector },
    );
  }

  /** Without its section where a line below says more. */
  protected readonly shown = computed(() => (this.why() === '' ? this.css() : this.css().replace(/^\/\*[^\n]*\n/, '')));
  protected readonly css = computed(() => {
    const site = this.#store.site();
    const overrides = this.overrides();
    if (!site || overrides.length === 0) return '';
    return compileRules(overrides, { palette: this.#store.palette(), parts: site.parts, ...sheetOptionsOf(site) });
  });
}
