import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { TidyProgress, TidySheet } from '@upper-veneer/core';
import { catchError, distinctUntilChanged, merge, of, startWith, switchMap, timer } from 'rxjs';
import { InTurn } from '../shared/drawing/in-turn';
import { Engine } from '../shared/engine/engine';
import { FormsModule } from '@angular/forms';
import { ActivatedRoute, Router } from '@angular/router';
import { Button } from 'primeng/button';
import type { MenuItem } from 'primeng/api';
import { Menu } from 'primeng/menu';
import { SelectButton } from 'primeng/selectbutton';
import { ApiProblem } from '../shared/api/api-problem';
import { SiteApi } from '../shared/api/site-api';
import { Messages } from '../shared/spoken/messages';
import { ProofStore } from '../shared/proof/proof-store';
import { DifferingRules } from './compare/differing-rules';
import { SheetsBeside } from './compare/sheets-beside';
import { HiddenList } from './delivery/hidden-list';
import { TryLive } from './delivery/try-live';
import { VisitorsGet } from './delivery/visitors-get';
import { WhereItGoes } from './delivery/where-it-goes';
import { RevisionList } from './revisions/revision-list';
import { SheetEditor } from './edit/sheet-editor';
import { SheetText } from './text/sheet-text';
import { writeDraftFile } from './draft-file';
import { SheetOptionsPanel } from './sheet-options-panel';
import { SiteStore } from '../shared/site/site-store';
import { downloadText, fileNameOf } from '../shared/ui/download-text';
import { withProgress } from '../shared/engine/with-progress';

const COPIED_MS = 1600;
/** A change waits so long for the next before the sheet is tidied, ms. */
const PAUSE_MS = 150;

/** What of the sheet is shown; the last four need a revision. */
type Sight = 'sheet' | 'edit' | 'revision' | 'beside' | 'differs' | 'changes';
const SIGHTS: ReadonlySet<string> = new Set(['edit', 'revision', 'beside', 'differs', 'changes']);

/** The compiled stylesheet, to read, compare and hand on; beside it the revisions and where it goes. */
@Component({
  selector: 'uv-sheet-page',
  imports: [
    InTurn,
    Button,
    DifferingRules,
    FormsModule,
    HiddenList,
    Menu,
    RevisionList,
    SelectButton,
    SheetEditor,
    SheetOptionsPanel,
    SheetText,
    SheetsBeside,
    TryLive,
    VisitorsGet,
    WhereItGoes,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { '[class.wide]': "sight() === 'edit'" },
  template: `
    <section class="sheet" aria-label="Stylesheet" i18n-aria-label>
      <div class="toolbar">
        <h1 i18n>veneer.css</h1>
        <span class="uv-soft size">{{ size() }}</span>
        <span class="uv-soft words" role="status" [title]="left().join('\n')">{{ words() }}</span>
        <span class="acts" *uvInTurn>
          <p-selectbutton
            [options]="sights()" optionLabel="label" optionValue="sight" [ngModel]="sight()" (ngModelChange)="go({ see: $event === 'sheet' ? null : $event })"
            [allowEmpty]="false" size="small" aria-label="What of the sheet is shown" i18n-aria-label
          />
          <p-button [label]="copied() ? wordsOf('sheet.copied') : wordsOf('sheet.copy')" [outlined]="true" size="small" [disabled]="css() === ''" (onClick)="copy()" />
          <p-button label="Download" i18n-label [outlined]="true" size="small" [disabled]="css() === ''" (onClick)="download()" />
          @if (proof.drawing(); as drawn) {
            <p-button [label]="wordsOf('sheet.stop-drawing', { done: drawn.done, of: drawn.of })" [outlined]="true" size="small" (onClick)="proof.stopDrawing()" />
          } @else {
            <p-button label="Hand over…" i18n-label [outlined]="true" size="small" [disabled]="store.isEmpty()" (onClick)="notes.toggle($event)" />
          }
          <p-button label="Draft as a file" i18n-label [outlined]="true" size="small" [disabled]="store.isEmpty()" (onClick)="downloadDraft()" />
          <p-menu #notes [model]="noteItems" [popup]="true" appendTo="body" />
        </span>
      </div>
      @switch (sight()) {
        @case ('sheet') {
          @if (css() === '') {
            <div class="empty"><h2 i18n>The sheet is empty</h2><p class="uv-soft" i18n>It fills as overrides are made on the Bench: the palette first, then a section for each part. An earlier sheet of yours can be put in: choose Edit.</p></div>
          } @else { <uv-sheet-text *uvInTurn [css]="css()" label="CSS of the draft" i18n-label /> }
        }
        @case ('edit') { <uv-sheet-editor *uvInTurn /> }
        @default {
          @if (isTidying() && sight() !== 'revision') {
            <p class="uv-soft reading" role="status" i18n>The draft is tidied before it is compared: revisions are.</p>
          } @else if (kept(); as revision) {
            @switch (sight()) {
              @case ('revision') {
                <uv-sheet-text [css]="revision.css" [label]="wordsOf('sheet.css-revision', { number: revision.number })" />
              }
              @case ('changes') {
                <uv-differing-rules [before]="revision.css" [after]="css()" [overrides]="both()"
                  [beforeLabel]="wordsOf('sheet.revision-number', { number: revision.number })" afterLabel="Draft" i18n-afterLabel />
              }
              @default {
                <uv-sheets-beside [before]="revision.css" [after]="css()" [onlyDiffering]="sight() === 'differs'"
                  [beforeLabel]="wordsOf('sheet.css-revision', { number: revision.number })" afterLabel="CSS of the draft" i18n-afterLabel />
              }
            }
          } @else { <p class="uv-soft reading" role="status" i18n>Reading revision {{ chosen() }}…</p> }
        }
      }
    </section>
    @if (sight() !== 'edit') {
    <aside class="uv-scroll" aria-label="Revisions and delivery" i18n-aria-label>
      <uv-revision-list *uvInTurn [chosen]="chosen()" [kept]="kept()" (choose)="choose($event)" />
      <uv-hidden-list />
      <uv-where-it-goes *uvInTurn [tidy]="tidied()" />
      <uv-visitors-get *uvInTurn />
      <uv-try-live *uvInTurn />
      <div class="more">
        <uv-sheet-options-panel *uvInTurn />
      </div>
    </aside>
    }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr) 360px; height: 100%; min-height: 0; }
    :host(.wide) { grid-template-columns: minmax(0, 1fr); }
    .sheet { display: grid; grid-template-rows: auto minmax(0, 1fr); min-width: 0; min-height: 0; }
    .toolbar { display: flex; flex-wrap: wrap; align-items: center; gap: 4px 12px; min-height: 46px; padding: 6px 16px; border-bottom: 1px solid var(--uv-line-strong); }
    .toolbar h1 { font-weight: 700; font-size: 15px; }
    .acts { display: flex; flex-wrap: wrap; gap: 8px; margin-left: auto; }
    .empty { display: grid; place-content: center; gap: 6px; background: var(--uv-paper); max-width: none; text-align: center; }
    .empty h2 { font-size: 17px; font-weight: 700; }
    .reading { padding: 16px; }
    aside { padding: 10px 0 16px; background: var(--uv-panel); border-left: 1px solid var(--uv-line-strong); }
    .more { padding: 8px 16px 0; }
    @media (max-width: 900px) { :host { grid-template-columns: minmax(0, 1fr); height: auto; } .sheet { grid-template-rows: auto minmax(60vh, auto); } .toolbar { padding: 6px 12px; } aside { border: 0; border-top: 1px solid var(--uv-line-strong); } }
  `,
})
export class SheetPage {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(SiteStore);
  protected readonly copied = signal(false);
  protected readonly proof = inject(ProofStore);
  protected readonly noteItems: MenuItem[] = [
    { label: wordsOf('sheet.note-with-pictures-html'), command: () => this.#note('html') },
    { label: wordsOf('sheet.note-markdown'), command: () => this.#note('md') },
  ];
  readonly #engine = inject(Engine);
  readonly #api = inject(SiteApi);
  readonly #messages = inject(Messages);
  /** How far the tidying is; `null` once it is done. */
  protected readonly progress = signal<TidyProgress | null>(null);
  /** Whether the last tidying came to nothing. */
  protected readonly hasFailed = signal(false);
  readonly #tidy = toSignal<TidySheet | null, null>(
    toObservable(computed(() => ({ css: this.store.veneer().css, painted: this.store.painted() }))).pipe(
      distinctUntilChanged((a, b) => a.css === b.css && a.painted === b.painted),
      // What is shown is never of the draft before.
      switchMap(({ css }) =>
        css === '' ? of(null) : merge(of(null), timer(PAUSE_MS).pipe(switchMap(() => this.#tidyNow()))),
      ),
    ),
    { initialValue: null },
  );
  protected readonly tidied = this.#tidy;
  protected readonly css = computed(() => this.#tidy()?.css ?? this.store.veneer().css);
  protected readonly left = computed(() => this.#tidy()?.dropped ?? []);
  /** What was done to the sheet, in words. */
  protected readonly words = computed(() => {
    const progress = this.progress();
    const tidy = this.#tidy();
    if (progress)
      return progress.total > 0
        ? wordsOf('sheet.tidying', { done: Math.min(progress.done, progress.total), total: progress.total })
        : wordsOf('sheet.is-tidying');
    if (!tidy) return this.hasFailed() ? wordsOf('sheet.not-tidied-failed') : '';
    if (tidy.unread > 0)
      return wordsOf('sheet.not-tidied-element-was', {
        unread: tidy.unread,
      });
    const parts = [
      tidy.dropped.length > 0 ? wordsOf('sheet.left-out-changed-nothing', { dropped: tidy.dropped.length }) : '',
      tidy.merged > 0 ? wordsOf('sheet.put-together-with-like', { merged: tidy.merged }) : '',
    ].filter(Boolean);
    return parts.length > 0 ? parts.join(', ') : wordsOf('sheet.every-declaration-changes-something');
  });
  protected readonly size = computed(() => {
    const css = this.css();
    if (css === '') return '';
    return wordsOf('sheet.lines-kb', {
      lines: css.trimEnd().split('\n').length,
      size: (new TextEncoder().encode(css).length / 1024).toFixed(1),
    });
  });

  protected readonly isTidying = computed(
    () => this.#tidy() === null && !this.hasFailed() && this.store.veneer().css !== '',
  );

  readonly #router = inject(Router);
  readonly #route = inject(ActivatedRoute);
  readonly #query = toSignal(this.#route.queryParamMap, { requireSync: true });
  /** The revision that is looked at or compared with: the newest until another is chosen. */
  protected readonly chosen = computed(() => {
    const revisions = this.store.draft()?.revisions ?? [];
    const asked = Number(this.#query().get('revision') ?? NaN);
    return revisions.some(({ number }) => number === asked) ? asked : (revisions.at(0)?.number ?? null);
  });
  protected readonly sight = computed((): Sight => {
    const asked = this.#query().get('see') ?? '';
    return (this.chosen() !== null || asked === 'edit') && SIGHTS.has(asked) ? (asked as Sight) : 'sheet';
  });
  protected readonly sights = computed((): { sight: Sight; label: string }[] => [
    { sight: 'sheet', label: wordsOf('sheet.sheet') },
    { sight: 'edit', label: wordsOf('sheet.edit') },
    ...(this.chosen() === null
      ? []
      : ([
          { sight: 'revision', label: wordsOf('sheet.revision-chosen', { chosen: this.chosen() ?? 0 }) },
          { sight: 'beside', label: wordsOf('sheet.side-side') },
          { sight: 'differs', label: wordsOf('sheet.only-what-differs') },
          { sight: 'changes', label: wordsOf('sheet.page') },
        ] as const)),
  ]);
  readonly #asked = computed(() => {
    const [site, number] = [this.store.site(), this.chosen()];
    return site && number !== null ? { siteId: site.id, number } : null;
  });
  readonly #kept = toSignal(
    toObservable(this.#asked).pipe(
      distinctUntilChanged((a, b) => a?.siteId === b?.siteId && a?.number === b?.number),
      switchMap((asked) =>
        asked
          ? this.#api.revision(asked.siteId, asked.number).pipe(
              catchError((error: unknown) => {
                this.#messages.report(ApiProblem.from(error));
                return of(null);
              }),
              startWith(null),
            )
          : of(null),
      ),
    ),
    { initialValue: null },
  );
  protected readonly kept = computed(() => (this.#kept()?.number === this.chosen() ? this.#kept() : null));
  /** Overrides of the draft and of the revision. */
  protected readonly both = computed(() => [...this.store.overrides(), ...(this.kept()?.overrides ?? [])]);

  protected choose(number: number): void {
    this.go({ revision: number, ...(this.sight() === 'sheet' ? { see: 'beside' } : {}) });
  }

  protected go(queryParams: Record<string, string | number | null>): void {
    void this.#router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
  }

  async #tidyNow(): Promise<TidySheet | null> {
    this.progress.set({ done: 0, total: 0 });
    this.hasFailed.set(false);
    try {
      return await withProgress(
        (progress: TidyProgress) => this.progress.set(progress),
        (listener) => this.#engine.remote.tidy(listener),
      );
    } catch (error) {
      this.hasFailed.set(true);
      this.#engine.tell(error);
      return null;
    } finally {
      this.progress.set(null);
    }
  }

  #note(format: 'html' | 'md'): void {
    this.proof.handOver(format).catch((error: unknown) => this.#engine.tell(error));
  }

  protected copy(): void {
    void navigator.clipboard.writeText(this.css()).then(() => {
      this.copied.set(true);
      setTimeout(() => this.copied.set(false), COPIED_MS);
    });
  }

  /** All that the sheet is compiled from, for `upper-veneer build`. */
  protected downloadDraft(): void {
    const [site, draft] = [this.store.site(), this.store.draft()];
    if (site && draft)
      downloadText(`${fileNameOf(site.name)}.draft.json`, 'application/json', writeDraftFile(site, draft));
  }

  protected download(): void {
    downloadText('veneer.css', 'text/css', this.css());
  }
}
