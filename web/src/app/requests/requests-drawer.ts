import { wordsOf } from '@upper-veneer/words';
import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  computed,
  inject,
  signal,
} from '@angular/core';
import { FormsModule } from '@angular/forms';
import { Router } from '@angular/router';
import { splitRequest, type ClientRequest, type RequestItem } from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { Textarea } from 'primeng/textarea';
import { newId } from '../shared/engine/new-id';
import { Engine } from '../shared/engine/engine';
import { SiteStore } from '../shared/site/site-store';
import { RequestItemCard } from './request-item-card';
import { RequestsStore } from './requests-store';

/** The client's list beside whatever is worked on: wishes as they came, split into items, each with how it stands. */
@Component({
  selector: 'uv-requests-drawer',
  imports: [Button, FormsModule, RequestItemCard, Textarea],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'complementary', '[attr.aria-label]': 'name', '(keydown.escape)': 'close()' },
  template: `
    <div class="head">
      <h2 i18n>Requests</h2><span class="uv-soft" role="status">{{ countWords() }}</span>
      <button type="button" class="x" aria-label="Close the requests" i18n-aria-label (click)="close()">×</button>
    </div>
    <div class="uv-scroll list">
      @for (request of store.requests(); track request.id) {
        <section [attr.aria-label]="wordsOf('requests.request', { cameAt: request.cameAt })">
          <details><summary i18n><span class="uv-soft">{{ request.cameAt }}</span> as it came</summary><p class="came">{{ request.text }}</p></details>
          @for (item of request.items; track item.id) { <uv-request-item [item]="item" (worked)="toBench(item)" /> }
        </section>
      } @empty {
        <p class="uv-soft none" i18n>Paste what the client wrote. It is split into wishes, and each is kept with the parts it is for, what must not change, and how it stands: done is yours to say, whether it holds is proved.</p>
      }
      <form class="new" (ngSubmit)="add()">
        <label for="uv-wishes" i18n>What the client wrote</label>
        <textarea pTextarea id="uv-wishes" name="wishes" rows="4" maxlength="20000" [ngModel]="text()" (ngModelChange)="text.set($event)"></textarea>
        @if (guessed().length > 0) {
          <ol>
            @for (item of guessed(); track $index) {
              <li>
                {{ item.words }}
                @if (item.partIds.length > 0) {
                  <span class="uv-soft" i18n>{{ partNames(item.partIds) }}, guessed by name</span>
                }
              </li>
            }
          </ol>
        }
        <p-button type="submit" [label]="guessed().length > 1 ? wordsOf('requests.take-as-wishes', { guessed: guessed().length }) : wordsOf('requests.take')" size="small" [disabled]="guessed().length === 0" />
      </form>
    </div>
  `,
  styles: `
    :host { position: fixed; z-index: 12; inset: 48px 0 0 auto; display: grid; grid-template-rows: auto minmax(0, 1fr); width: min(440px, 100vw); background: var(--uv-panel); border-left: 1px solid var(--uv-line-strong); box-shadow: -4px 0 18px rgb(0 0 0 / 18%); }
    .head { display: flex; align-items: center; gap: 10px; padding: 8px 8px 8px 14px; border-bottom: 1px solid var(--uv-line-strong); }
    h2 { font-size: 15px; font-weight: 700; }
    .x { width: 30px; height: 30px; margin-left: auto; border: 0; background: none; color: inherit; font-size: 18px; cursor: pointer; }
    details { padding: 8px 14px 0; font-size: 12.5px; }
    summary { cursor: pointer; }
    .came { margin: 4px 0 0; white-space: pre-wrap; overflow-wrap: anywhere; }
    .none { padding: 14px; }
    .new { display: grid; gap: 6px; justify-items: start; padding: 14px; }
    .new textarea { width: 100%; }
    ol { margin: 0; padding-left: 20px; font-size: 12.5px; }
    @media (max-width: 900px) { :host { inset: 0; width: 100vw; } }
  `,
})
export class RequestsDrawer {
  protected readonly name = wordsOf('shell.requests');
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(RequestsStore);
  readonly #site = inject(SiteStore);
  readonly #router = inject(Router);
  readonly #engine = inject(Engine);
  protected readonly text = signal('');
  protected readonly guessed = computed(() =>
    splitRequest(this.text(), this.#site.site()?.parts ?? [], this.#site.captured()),
  );
  protected readonly countWords = computed(() => {
    const { items, settled } = this.store.count();
    return items === 0 ? '' : wordsOf('requests.settled', { settled, items });
  });

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef);
    afterNextRender(() => host.nativeElement.querySelector<HTMLElement>('input, textarea')?.focus());
  }

  protected close(): void {
    this.store.isOpen.set(false);
    document.querySelector<HTMLElement>('uv-top-bar .asks')?.focus();
  }

  protected partNames(ids: readonly number[]): string {
    return (this.#site.site()?.parts ?? [])
      .filter(({ id }) => ids.includes(id))
      .map(({ name }) => name)
      .join(', ');
  }

  protected add(): void {
    const text = this.text().trim();
    if (this.guessed().length === 0) return;
    const request: ClientRequest = {
      id: newId(),
      text,
      cameAt: new Date().toISOString().slice(0, 10),
      items: this.guessed().map((guess): RequestItem => ({
        ...guess,
        id: newId(),
        keep: '',
        question: '',
        standing: 'to do',
        reason: '',
        looks: [],
        overrides: [],
      })),
    };
    this.store.put(wordsOf('requests.request-taken', { words: request.items[0].words }), [
      ...this.store.requests(),
      request,
    ]);
    this.text.set('');
  }

  /** Goes where a wish is worked on: to what was made for it, else to its first part. */
  protected async toBench(item: RequestItem): Promise<void> {
    const made = this.#site.overrides().find(({ id }) => item.overrides.includes(id));
    const part = this.#site.site()?.parts.find(({ id }) => item.partIds.includes(id));
    const selector = item.looks.at(0)?.selector ?? part?.selector;
    const spot = made ?? (selector === undefined ? null : await this.#engine.remote.firstMatch(selector));
    await this.#router.navigate(['/bench'], {
      queryParams: spot ? { page: spot.pageId, element: spot.element } : { page: item.pageIds.at(0) },
    });
    this.store.isOpen.set(false);
    document.querySelector('main')?.focus();
  }
}
