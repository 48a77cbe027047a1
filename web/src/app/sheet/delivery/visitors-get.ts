import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { ServedDocument } from '@upper-veneer/contract';
import { Button } from 'primeng/button';
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
import { StandingMark } from '../../shared/ui/standing-mark';

/** What came of asking the host. */
type Asked =
  | { readonly status: 'asking' }
  | { readonly status: 'told'; readonly served: ServedDocument }
  | { readonly status: 'lost'; readonly words: string };

const WORDS: Readonly<Record<ServedDocument['pages'][number]['standing'], string>> = {
  it: 'carries it',
  other: 'carries other bytes',
  none: 'carries none',
  lost: 'did not come',
};

/** What visitors are really served: asked at the host, compared by hash, with how long ago. */
@Component({
  selector: 'uv-visitors-get',
  imports: [Button, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>What visitors get</h2>
    @if (site.site(); as own) {
      @switch (asked().status) {
        @case ('asking') { <p class="uv-soft" role="status">Asking the host…</p> }
        @case ('lost') { <p role="status"><uv-standing standing="fails" /> {{ lostWords() }}</p> }
        @default {
          @if (told(); as now) {
            <p role="status"><uv-standing [standing]="now.standing" /> <strong>{{ now.words }}</strong> at <a [href]="own.hostUrl" target="_blank" rel="noopener">{{ own.hostUrl }}</a></p>
            <p class="uv-soft">{{ now.facts }}</p>
            @if (now.wrong.length > 0) { <ul>@for (page of now.wrong; track page.id) { <li>{{ page.name }} {{ wordsOf(page.standing) }}</li> }</ul> }
          }
        }
      }
      <p-button label="Ask again" [outlined]="true" size="small" (onClick)="again.set(again() + 1)" />
    }
  `,
  styles: `
    :host { display: grid; gap: 5px; justify-items: start; padding: 14px 16px; border-top: 1px solid var(--uv-line); font-size: 12.5px; }
    h2 { font-size: 12px; font-weight: 700; color: var(--uv-soft); }
    p { overflow-wrap: anywhere; }
    uv-standing { margin-right: 5px; }
    ul { margin: 0; padding-left: 18px; }
    a { color: inherit; }
  `,
})
export class VisitorsGet {
  protected readonly site = inject(SiteStore);
  readonly #api = inject(SiteApi);
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
    const { published, pages, left, askedAt } = asked.served;
    const right = pages.filter(({ standing }) => standing === (published === null ? 'none' : 'it'));
    const seconds = Math.max(0, Math.round((this.#ago() - Date.parse(askedAt)) / 1000));
    const unasked = left === 0 ? '' : `, ${left} more not asked for`;
    return {
      standing: right.length === pages.length ? ('holds' as const) : ('fails' as const),
      words:
        right.length < pages.length
          ? 'Not all visitors get what was published'
          : published === null
            ? 'Visitors get the site as it arrived'
            : `Visitors get revision ${published}`,
      facts: `asked ${seconds} s ago: ${right.length} of ${pages.length} pages ${published === null ? 'carry no veneer' : 'carry its hash'}${unasked}`,
      wrong: pages.filter((page) => !right.includes(page)),
    };
  });

  protected wordsOf(standing: ServedDocument['pages'][number]['standing']): string {
    return WORDS[standing];
  }
}
