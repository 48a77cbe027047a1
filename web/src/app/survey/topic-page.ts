import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormsModule } from '@angular/forms';
import type { Topic } from '@upper-veneer/core';
import { Select } from 'primeng/select';
import { CENSUS_WIDTH, CensusStore } from '../shared/census/census-store';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import type { FramedPage } from '../shared/frame/framed-page';
import { PageFrame } from '../shared/frame/page-frame';
import { SiteStore } from '../shared/site/site-store';

/** Where a part, a stylesheet or a font shows, lit on a page. */
@Component({
  selector: 'uv-topic-page',
  imports: [FormsModule, PageFrame, Select],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="on">
      <p-select [options]="$any(choices())" optionLabel="label" optionValue="key" [ngModel]="choice()?.key" (ngModelChange)="chosen.set($event)" size="small" [ariaLabel]="wordsOf('survey.which-lit')" scrollHeight="380px" [emptyMessage]="empty()" [placeholder]="choices().length === 0 ? wordsOf('survey.nothing-show') : ''" />
      <p-select [options]="$any(site.site()?.pages ?? [])" optionLabel="name" optionValue="id" [ngModel]="pageId()" (ngModelChange)="chosenPage.set($event)" size="small" ariaLabel="Page" i18n-ariaLabel />
    </div>
    <p class="uv-soft note" role="status">{{ words() }}</p>
    @if (framed(); as page) { <uv-page-frame [page]="page" [width]="width" [reached]="lit()" [target]="null" /> }
  `,
  styles: `
    :host { display: grid; grid-template-columns: minmax(0, 1fr); grid-template-rows: auto auto minmax(0, 1fr); min-height: 0; background: var(--uv-panel); border-left: 1px solid var(--uv-line-strong); }
    .on { display: grid; grid-template-columns: minmax(0, 1fr) minmax(0, 130px); gap: 8px; padding: 9px 12px 4px; }
    .note { padding: 0 12px 7px; font-size: 12.5px; }
  `,
})
export class TopicPage {
  protected readonly wordsOf = wordsOf;

  protected readonly site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #census = inject(CensusStore);
  readonly topic = input.required<string>();

  protected readonly width = CENSUS_WIDTH;
  protected readonly chosen = signal('');
  protected readonly chosenPage = signal<number | null>(null);
  protected readonly choices = computed<
    readonly { readonly key: string; readonly label: string; readonly topic: Topic }[]
  >(() => {
    const census = this.#census.census();
    switch (this.topic()) {
      case 'parts':
        return (this.site.site()?.parts ?? []).map(({ id, name }) => ({
          key: `part ${id}`,
          label: name,
          topic: { kind: 'part', partId: id },
        }));
      case 'sheets':
        return (census?.sheets ?? []).map(({ name }) => ({
          key: `sheet ${name}`,
          label: name,
          topic: { kind: 'sheet', name },
        }));
      case 'fonts':
        return [...new Set((census?.fonts ?? []).map(({ family }) => family))].map((family) => ({
          key: `font ${family}`,
          label: family,
          topic: { kind: 'font', family },
        }));
      default:
        return [];
    }
  });
  protected readonly choice = computed(
    () => this.choices().find(({ key }) => key === this.chosen()) ?? this.choices().at(0) ?? null,
  );
  protected readonly pageId = computed(() => {
    const pages = this.site.site()?.pages ?? [];
    return pages.find(({ id }) => id === this.chosenPage())?.id ?? pages.at(0)?.id ?? null;
  });
  readonly #question = computed(
    () => ({ topic: this.choice()?.topic ?? null, pageId: this.pageId(), css: this.site.veneer().css }),
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
  protected readonly lit = toSignal<readonly number[], readonly number[]>(
    toObservable(this.#question).pipe(
      askEngine(
        this.#engine,
        ({ topic, pageId }, engine): Promise<readonly number[]> | null =>
          topic && pageId !== null ? engine.whereItShows(pageId, topic, CENSUS_WIDTH) : null,
        [],
      ),
    ),
    { initialValue: [] },
  );
  protected readonly empty = computed(() =>
    this.topic() === 'parts' ? wordsOf('survey.no-part-yet') : wordsOf('survey.known-once-colours-are'),
  );
  protected readonly words = computed(() => {
    const count = this.lit().length;
    if (!this.choice()) return this.empty();
    return count === 0
      ? wordsOf('survey.not-this-page')
      : wordsOf('survey.element-elements-lit-up', {
          count,
          CENSUSWIDTH: CENSUS_WIDTH,
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
}
