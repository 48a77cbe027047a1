import { wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { HostingRequest, ServedDocument } from '@upper-veneer/contract';
import { FormsModule } from '@angular/forms';
import { Button } from 'primeng/button';
import { Select } from 'primeng/select';
import {
  type Observable,
  catchError,
  combineLatest,
  distinctUntilChanged,
  interval,
  map,
  of,
  startWith,
  switchMap,
} from 'rxjs';
import { ApiProblem } from '../../shared/api/api-problem';
import { SiteApi } from '../../shared/api/site-api';
import { SiteStore } from '../../shared/site/site-store';
import { Messages } from '../../shared/spoken/messages';
import { StandingMark } from '../../shared/ui/standing-mark';

/** What came of asking the host. */
type Asked =
  | { readonly status: 'asking' }
  | { readonly status: 'told'; readonly served: ServedDocument }
  | { readonly status: 'lost'; readonly words: string };

const WORDS: Readonly<Record<ServedDocument['pages'][number]['standing'], string>> = {
  it: wordsOf('sheet.what-was-published'),
  other: wordsOf('sheet.bytes'),
  none: wordsOf('sheet.no-veneer'),
  lost: wordsOf('sheet.no-answer'),
};

/** What visitors are really served: asked at the host, compared by hash, with how long ago. */
@Component({
  selector: 'uv-visitors-get',
  imports: [Button, FormsModule, Select, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 i18n>What visitors get</h2>
    @if (site.site(); as own) {
      @switch (asked().status) {
        @case ('asking') { <p class="uv-soft" role="status" i18n>Asking the host…</p> }
        @case ('lost') { <p role="status"><uv-standing standing="fails" /> {{ lostWords() }}</p> }
        @default {
          @if (told(); as now) {
            <p role="status" i18n><uv-standing [standing]="now.standing" /> <strong>{{ now.words }}</strong> at <a [href]="own.hostUrl" target="_blank" rel="noopener">{{ own.hostUrl }}</a></p>
            <p class="uv-soft">{{ now.facts }}</p>
            @if (now.wrong.length > 0) { <ul>@for (line of now.wrong; track line) { <li>{{ line }}</li> }</ul> }
            @if (now.isStale) {
              <p class="cure">
                <p-button label="Purge the cache" i18n-label size="small" (onClick)="purge()" />
                @if (!now.hasNewName) {
                  <p-button
                    label="Give it a new name" i18n-label [outlined]="true" size="small"
                    (onClick)="host({ hasNewName: true, maxAge: now.maxAge })" />
                }
              </p>
              <p class="uv-soft" i18n>A purge empties the host’s cache; a browser that has the old copy keeps it until it is as old as the host allowed. A new name reaches those too, with the next page they open.</p>
            }
            <div class="host">
              <p-select [options]="names" optionLabel="label" optionValue="hasNewName" [ngModel]="now.hasNewName" (ngModelChange)="host({ hasNewName: $event, maxAge: now.maxAge })" size="small" ariaLabel="Name of the published sheet" i18n-ariaLabel />
              <p-select [options]="agesWith(now.maxAge)" optionLabel="label" optionValue="maxAge" [ngModel]="now.maxAge" (ngModelChange)="host({ hasNewName: now.hasNewName, maxAge: $event })" size="small" ariaLabel="How long caches keep it" i18n-ariaLabel />
            </div>
          }
        }
      }
      <p-button label="Ask again" i18n-label [outlined]="true" size="small" (onClick)="again.set(again() + 1)" />
    }
  `,
  styles: `
    :host { display: grid; gap: 5px; justify-items: start; padding: 14px 16px; border-top: 1px solid var(--uv-line); font-size: 12.5px; }
    h2 { font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    p { overflow-wrap: anywhere; }
    uv-standing { margin-right: 5px; }
    ul { margin: 0; padding-left: 18px; }
    a { color: inherit; }
    .cure { display: flex; flex-wrap: wrap; gap: 6px; }
    .host { display: grid; grid-template-columns: minmax(0, 1.35fr) minmax(0, 1fr); gap: 6px; width: 100%; }
    .host p-select { min-width: 0; width: 100%; }
  `,
})
export class VisitorsGet {
  protected readonly site = inject(SiteStore);
  readonly #api = inject(SiteApi);
  readonly #messages = inject(Messages);
  protected readonly again = signal(0);
  /** What the answer hangs on: another publication is asked for at once. */
  readonly #key = computed(() => {
    const [site, draft] = [this.site.site(), this.site.draft()];
    return site && draft ? { id: site.id, published: draft.publishedRevision, again: this.again() } : null;
  });
  protected readonly asked = toSignal(
    toObservable(this.#key).pipe(
      distinctUntilChanged((a, b) => a?.id === b?.id && a?.published === b?.published && a?.again === b?.again),
      switchMap((key): Observable<Asked> =>
        key === null
          ? of({ status: 'asking' })
          : this.#api.served(key.id).pipe(
              map((served): Asked => ({ status: 'told', served })),
              catchError((error: unknown) => of<Asked>({ status: 'lost', words: ApiProblem.from(error).message })),
              startWith<Asked>({ status: 'asking' }),
            ),
      ),
    ),
    { initialValue: { status: 'asking' } as Asked },
  );
  readonly #ago = toSignal(
    combineLatest([interval(5000).pipe(startWith(0)), toObservable(this.asked)]).pipe(map(() => Date.now())),
    {
      initialValue: Date.now(),
    },
  );
  protected readonly lostWords = computed(() => {
    const asked = this.asked();
    return asked.status === 'lost' ? asked.words : '';
  });
  protected readonly told = computed(() => {
    const asked = this.asked();
    if (asked.status !== 'told') return null;
    const { published, pages, left, askedAt, hasNewName, maxAge } = asked.served;
    const right = pages.filter(({ standing }) => standing === (published === null ? 'none' : 'it'));
    const seconds = Math.max(0, Math.round((this.#ago() - Date.parse(askedAt)) / 1000));
    const unasked = left === 0 ? '' : wordsOf('sheet.more-not-asked-for', { left });
    return {
      standing: right.length === pages.length ? ('holds' as const) : ('fails' as const),
      words:
        right.length < pages.length
          ? wordsOf('sheet.not-all-visitors-get')
          : published === null
            ? wordsOf('sheet.visitors-get-site-as')
            : wordsOf('sheet.visitors-get-revision', { published }),
      facts: wordsOf('sheet.asked-s-ago-pages', {
        seconds,
        right: right.length,
        pages: pages.length,
        case: published === null ? 'yes' : 'no',
        unasked,
      }),
      wrong: this.#linesOf(pages.filter((page) => !right.includes(page))),
      isStale: pages.some(({ standing, age }) => standing === 'other' && age !== null),
      hasNewName,
      maxAge,
    };
  });

  /** What pages bring, those that bring the same together. */
  #linesOf(pages: ServedDocument['pages']): string[] {
    const together = new Map<string, string[]>();
    for (const page of pages) {
      const words = this.#wordsOf(page);
      together.set(words, [...(together.get(words) ?? []), page.name]);
    }
    return [...together].map(([words, names]) => {
      const more = names.length - 3;
      return wordsOf('sheet.more', { names: names.slice(0, 3), more, words });
    });
  }

  #wordsOf({ standing, revision, age, maxAge }: ServedDocument['pages'][number]): string {
    if (standing !== 'other') return WORDS[standing];
    const what = revision === null ? WORDS.other : wordsOf('sheet.revision', { revision });
    if (age === null) return what;
    const left =
      maxAge === null ? '' : wordsOf('sheet.for-more', { duration: durationWords(Math.max(0, maxAge - age)) });
    return wordsOf('sheet.which-cache-has-kept', { what, duration: durationWords(age), left });
  }

  protected readonly names = [
    { hasNewName: true, label: wordsOf('sheet.new-name-each-time') },
    { hasNewName: false, label: wordsOf('sheet.one-name-for-all') },
  ];

  /** How long caches may be told to keep a file, with what is set. */
  protected agesWith(set: number): { readonly maxAge: number; readonly label: string }[] {
    return [...new Set([0, 300, 3600, 86_400, set])]
      .sort((a, b) => a - b)
      .map((maxAge) => ({
        maxAge,
        label:
          maxAge === 0 ? wordsOf('sheet.not-kept') : wordsOf('sheet.kept-for', { duration: durationWords(maxAge) }),
      }));
  }

  protected host(hosting: HostingRequest): void {
    this.#then((siteId) => this.#api.putHosting(siteId, hosting));
  }

  protected purge(): void {
    this.#then((siteId) => this.#api.purge(siteId));
  }

  /** Does something to the host, and asks it again. */
  #then(act: (siteId: number) => Observable<unknown>): void {
    const site = this.site.site();
    if (!site) return;
    act(site.id).subscribe({
      next: () => this.again.update((count) => count + 1),
      error: (error: unknown) => this.#messages.report(ApiProblem.from(error)),
    });
  }
}

/** `12 min`, `2 h`. */
function durationWords(seconds: number): string {
  if (seconds < 90) return `${seconds} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 90 ? wordsOf('sheet.min', { minutes }) : `${Math.round(minutes / 60)} h`;
}
