import { say, type Spoken, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import { valueTold, type FeedingProperty, type Override, type OverrideValue, type Spot } from '@upper-veneer/core';
import { Select } from 'primeng/select';
import { combineLatest, debounceTime } from 'rxjs';
import { CENSUS_WIDTH } from '../shared/census/census-store';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import type { Judgement } from '../shared/engine/engine-api';
import type { FramedPage } from '../shared/frame/framed-page';
import { PageFrame } from '../shared/frame/page-frame';
import { DraftEdits } from '../shared/site/draft-edits';
import { SiteStore } from '../shared/site/site-store';
import { ColorChip } from '../shared/ui/color-chip';
import { StandingMark } from '../shared/ui/standing-mark';
import { ValuePicker } from '../shared/ui/value-picker';
import { withProgress } from '../shared/engine/with-progress';

/** One custom property of the theme: what follows it lit on a page, and the value it is to have instead. */
@Component({
  selector: 'uv-feeding-detail',
  imports: [ColorChip, FormsModule, PageFrame, Select, StandingMark, ValuePicker],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (property(); as found) {
      <div class="head">
        <uv-color-chip [color]="found.hex" />
        <div><h2 class="uv-mono" [title]="found.name">{{ found.name }}</h2><p class="uv-soft" [title]="wordsOf('survey.selector-in-sheet', { selector: found.selector, sheet: found.sheet })" i18n>{{ found.value }} · {{ found.places }} {found.places, plural, =1 {place follows} other {places follow}}</p></div>
      </div>
      <uv-value-picker [palette]="site.palette()" [current]="own()?.value ?? null" (picked)="set($event)" />
      <p class="acts">
        @if (own()) {
          <span class="uv-soft" i18n>Overridden for <span class="uv-mono">{{ own()?.selector }}</span></span>
          &ngsp;
          <button type="button" (click)="clear()" i18n>Clear</button>
        } @else {
          <span class="uv-soft" i18n>A swatch, a shade or a typed colour changes it for everything that follows.</span>
        }
      </p>
      @if (refusal()) {
        <p class="line" role="alert"><uv-standing standing="fails" /> {{ refusal() }}</p>
      } @else if (findings().length > 0) {
        <ul class="verdict" aria-label="Verdict" i18n-aria-label>
          @for (finding of findings(); track $index) {
            <li>
              <uv-standing [standing]="finding.standing" />
              @if (finding.spots?.length) {
                <button type="button" [title]="finding.basis" (click)="outlined.set(finding.spots ?? [])">{{ finding.text }}</button>
              } @else {
                <span [title]="finding.basis">{{ finding.text }}</span>
              }
            </li>
          }
        </ul>
      } @else if (own()) { <p class="line uv-soft" role="status" i18n>Checking every page…</p> }
      <div class="on">
        <p-select [options]="$any(pages())" optionLabel="label" optionValue="id" [ngModel]="pageId()" (ngModelChange)="chosenPage.set($event)" size="small" ariaLabel="Page on which what follows is lit" i18n-ariaLabel />
        <span class="uv-soft">{{ litWords() }}</span>
        @if (outlined().length > 0) { <button type="button" (click)="outlined.set([])" i18n>All that follow</button> }
      </div>
      @if (framed(); as page) { <uv-page-frame class="preview" [page]="page" [width]="width" [reached]="lit()" [target]="null" /> }
    } @else {
      <div class="empty"><h2 i18n>No property chosen</h2><p class="uv-soft" i18n>Choose a row: everything that follows the property lights up on the page here, and it can be given another value for all of it at once.</p></div>
    }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr); grid-auto-rows: auto; align-content: start; min-height: 0; background: var(--uv-panel); border-left: 1px solid var(--uv-line-strong); overflow: auto; }
    .head { display: grid; grid-template-columns: auto minmax(0, 1fr); gap: 10px; align-items: center; padding: 10px 12px; }
    .head uv-color-chip { width: 34px; height: 34px; }
    h2 { font-size: 16px; font-weight: 700; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    .head p { font-size: 12px; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
    uv-value-picker { padding-inline: 12px; }
    .acts, .line { display: flex; align-items: center; gap: 8px; padding: 0 12px 8px; font-size: 12.5px; }
    button { padding: 1px 8px; border: 1px solid var(--uv-line-strong); border-radius: 3px; background: var(--uv-paper); color: var(--uv-ink); font-size: 12px; cursor: pointer; }
    .verdict { display: flex; flex-wrap: wrap; gap: 4px 14px; margin: 0; padding: 0 12px 8px; list-style: none; font-size: 12.5px; }
    .verdict uv-standing { margin-right: 4px; }
    .verdict button { padding: 0; border: 0; background: none; font-size: inherit; text-decoration: underline; }
    .on { display: flex; align-items: center; gap: 10px; padding: 6px 12px; border-top: 1px solid var(--uv-line); font-size: 12px; }
    .preview { height: 300px; }
    .empty { display: grid; gap: 8px; padding: 24px 20px; }
  `,
})
export class FeedingDetail {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  protected readonly edits = inject(DraftEdits);
  readonly #engine = inject(Engine);
  readonly property = input.required<FeedingProperty | null>();
  /** Emits once the property was changed, so that what was counted is known to be old. */
  readonly changed = output();

  protected readonly width = CENSUS_WIDTH;
  protected readonly refusal = signal('');
  protected readonly chosenPage = signal<number | null>(null);
  /** Places of a finding, outlined instead of all that follows. */
  protected readonly outlined = signal<readonly Spot[]>([]);

  /** The override of this property, where there is one. */
  protected readonly own = computed<Override | null>(() => {
    const found = this.property();
    return found
      ? (this.site
          .overrides()
          .findLast(
            (override) =>
              override.property === found.name &&
              !override.through &&
              override.pageId === found.setOn.pageId &&
              override.element === found.setOn.element,
          ) ?? null)
      : null;
  });
  readonly #judgement = toSignal<Spoken<Judgement> | null, null>(
    combineLatest([toObservable(this.own), toObservable(this.site.veneer)]).pipe(
      debounceTime(0),
      askEngine(
        this.#engine,
        ([own], engine): Promise<Spoken<Judgement> | null> | null =>
          own
            ? withProgress(
                () => undefined,
                (listener) => engine.judge(own, CENSUS_WIDTH, listener),
              )
            : null,
        null,
      ),
    ),
    { initialValue: null },
  );
  protected readonly findings = computed(() => {
    const judgement = this.#judgement();
    const order = { fails: 0, look: 1, holds: 2 } as const;
    return judgement && judgement.override.id === this.own()?.id
      ? [...judgement.findings].sort((a, b) => order[a.standing] - order[b.standing])
      : [];
  });

  protected readonly pages = computed(() => {
    const counts = new Map<number, number>();
    for (const { pageId } of this.property()?.followers ?? []) counts.set(pageId, (counts.get(pageId) ?? 0) + 1);
    return (this.site.site()?.pages ?? [])
      .flatMap(({ id, name }) =>
        counts.has(id) ? [{ id, count: counts.get(id) ?? 0, label: `${name} (${counts.get(id)})` }] : [],
      )
      .sort((a, b) => b.count - a.count);
  });
  protected readonly pageId = computed(() => {
    const [outlined] = this.outlined();
    const chosen = this.chosenPage() ?? outlined?.pageId;
    return this.pages().some(({ id }) => id === chosen) ? (chosen ?? null) : (this.pages().at(0)?.id ?? null);
  });
  protected readonly lit = computed(() => [
    ...new Set(
      (this.outlined().length > 0 ? this.outlined() : (this.property()?.followers ?? []))
        .filter(({ pageId }) => pageId === this.pageId())
        .map(({ element }) => element),
    ),
  ]);
  protected readonly litWords = computed(() => {
    const found = this.property();
    const count = this.lit().length;
    const listed =
      found && found.elements > found.followers.length
        ? wordsOf('survey.all-pages-are-listed', { followers: found.followers.length, elements: found.elements })
        : '';
    return wordsOf('survey.lit-up-finding', {
      count,
      outlined: this.outlined().length,
      listed,
    });
  });
  protected readonly framed = computed<FramedPage | null>(() => {
    const site = this.site.site();
    const pageId = this.pageId();
    return site && pageId !== null
      ? {
          url: `/frame/sites/${site.id}/pages/${pageId}/?v=${site.draft.structure}`,
          veneerPlace: site.veneerPlace,
          frameCss: this.site.veneer().frameCss,
          amendments: new Map(),
          scheme: 'light',
        }
      : null;
  });

  protected async set(value: OverrideValue): Promise<void> {
    const found = this.property();
    if (!found) return;
    const plan = await this.#engine.remote.plan([
      {
        ...found.setOn,
        pseudo: '',
        ...(found.group === null ? { reach: 'alike' as const } : { reach: 'group' as const, group: found.group }),
        state: 'rest',
        property: found.name,
        value,
        width: CENSUS_WIDTH,
      },
    ]);
    this.refusal.set(plan.refused[0] ?? '');
    if (plan.put.length > 0)
      this.#store(`${found.name}: ${say(valueTold({ palette: this.site.palette() }, value))}`, plan.put, plan.drop);
  }

  protected clear(): void {
    const own = this.own();
    if (own) this.#store(wordsOf('survey.clear', { property: own.property }), [], [own.id]);
  }

  #store(label: string, put: readonly Override[], drop: readonly string[]): void {
    this.outlined.set([]);
    this.edits.change({ label: label.slice(0, 200), put: put, drop: [...drop] }).subscribe(() => this.changed.emit());
  }
}
