import { say, wordsOf } from '@upper-veneer/words';
import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { FormsModule } from '@angular/forms';
import { RouterLink } from '@angular/router';
import {
  MOST_LOOKS,
  REQUEST_STANDINGS,
  stateTold,
  propertyTold,
  valueTold,
  type RequestItem,
  type RequestLook,
  type RequestStanding,
} from '@upper-veneer/core';
import { Button } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { MultiSelect } from 'primeng/multiselect';
import { Select } from 'primeng/select';
import { SiteStore } from '../shared/site/site-store';
import { Messages } from '../shared/spoken/messages';
import { StandingMark } from '../shared/ui/standing-mark';
import { LookForm } from './look-form';
import { RequestsStore } from './requests-store';

const STANDING_WORDS: Readonly<Record<(typeof REQUEST_STANDINGS)[number], string>> = {
  'to do': wordsOf('request-standing.to-do'),
  asked: wordsOf('request-standing.asked'),
  refused: wordsOf('request-standing.refused'),
  done: wordsOf('request-standing.done'),
};

/** One wish of the client: whom it is for, how it stands, and whether the look that was named for it is there. */
@Component({
  selector: 'uv-request-item',
  imports: [Button, FormsModule, InputText, LookForm, MultiSelect, RouterLink, Select, StandingMark],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="head">
      <textarea class="wish" maxlength="400" aria-label="Wish" i18n-aria-label [rows]="item().words.length > 42 ? 2 : 1" [value]="item().words" #words (change)="change('words', words.value)"></textarea>
      <p-select
        [options]="standings" optionLabel="label" optionValue="standing" [ngModel]="item().standing"
        (ngModelChange)="stand($event)" size="small" ariaLabel="How it stands" i18n-ariaLabel />
    </div>
    @if (holds(); as found) {
      <p class="holds" role="status">
        @if (found.misses > 0) {
          <uv-standing standing="fails" />
          <ng-container i18n> {{ found.misses }} of {{ found.places }} places have not the look: <a
            routerLink="/bench" [queryParams]="spotOf(found.missed[0])">{{ missedWords() }}</a></ng-container>
        } @else if (found.unseen.length > 0) { <uv-standing standing="look" /> {{ found.unseen[0] }} } @else {
          <uv-standing standing="holds" />
          <span
            title="Each state by itself and two that come together; what browsers paint over fields they filled in, and states of other elements, are not looked at"
            i18n-title
            i18n>Holds on {{ found.places }} {found.places, plural, =1 {place} other {places}}, in every state of its own, width and page: {{ found.compared }} comparisons</span>
        }
      </p>
    } @else if (item().standing === 'done') {
      <p class="holds" i18n><uv-standing standing="look" /> Done by your word alone: no look is named to prove it by.</p>
    }
    <div class="for">
      <p-multiselect [options]="parts()" optionLabel="name" optionValue="id" [ngModel]="item().partIds" (ngModelChange)="change('partIds', $event)" placeholder="Parts" i18n-placeholder size="small" [maxSelectedLabels]="2" ariaLabel="Parts it is for" i18n-ariaLabel [showToggleAll]="false" />
      <p-multiselect [options]="pages()" optionLabel="name" optionValue="id" [ngModel]="item().pageIds" (ngModelChange)="change('pageIds', $event)" placeholder="Every page" i18n-placeholder size="small" [maxSelectedLabels]="2" ariaLabel="Pages it is for" i18n-ariaLabel [showToggleAll]="false" />
    </div>
    <div class="for">
      <input pInputText pSize="small" maxlength="400" placeholder="must not change…" i18n-placeholder aria-label="What must not change" i18n-aria-label [value]="item().keep" #keep (change)="change('keep', keep.value)" />
      <input pInputText pSize="small" maxlength="400" placeholder="ask back…" i18n-placeholder aria-label="Question to ask back" i18n-aria-label [value]="item().question" #question (change)="ask(question.value)" />
    </div>
    @if (item().standing === 'refused') {
      <label class="line">
        <span class="uv-soft" i18n>Because</span>
        <input pInputText pSize="small" maxlength="400" [value]="item().reason" #reason (change)="change('reason', reason.value)" />
      </label>
    }
    <ul class="looks" aria-label="Looks it is proved by" i18n-aria-label>
      @for (look of item().looks; track $index) {
        <li><span>{{ lookWords(look) }} <span class="uv-mono uv-soft">{{ look.selector }}</span></span><button type="button" [attr.aria-label]="wordsOf('requests.take-away-look', { look: lookWords(look) })" (click)="dropLook($index)">×</button></li>
      }
    </ul>
    <uv-look-form (named)="addLooks([$event])" />
    <div class="acts">
      @if (store.worked()?.id === item().id) {
        <p-button
          label="Being worked on" i18n-label size="small" (onClick)="store.workOn(null)"
          title="Changes are made for it; press to end that" i18n-title />
      } @else { <p-button label="Work on it" i18n-label [outlined]="true" size="small" (onClick)="workOn()" /> }
      @if (made() > 0) {
        <p-button
          [label]="wordsOf('requests.looks-from-what-was', { made: made() })" [outlined]="true" size="small"
          (onClick)="addLooks(store.looksMadeFor(item()))" />
      }
      <p-button label="Take away" i18n-label [text]="true" size="small" (onClick)="store.drop(item().id)" />
    </div>
  `,
  styles: `
    :host { display: grid; gap: 6px; padding: 10px 14px 12px; border-bottom: 1px solid var(--uv-line); }
    .head { display: grid; grid-template-columns: minmax(0, 1fr) 108px; align-items: start; gap: 6px; }
    .wish { padding: 5px 8px; border: 1px solid transparent; background: none; color: inherit; font: inherit; font-weight: 600; resize: none; }
    .wish:hover, .wish:focus { border-color: var(--uv-line-strong); background: var(--uv-paper); }
    a { color: inherit; }
    .for input { min-width: 0; }
    .holds { margin: 0; font-size: 12.5px; }
    .for { display: grid; grid-template-columns: 1fr 1fr; gap: 6px; }
    .for p-multiselect { min-width: 0; width: 100%; }
    .line { display: grid; grid-template-columns: 108px minmax(0, 1fr); align-items: center; gap: 6px; font-size: 12.5px; }
    .looks { margin: 0; padding: 0; list-style: none; }
    .looks li { display: flex; justify-content: space-between; gap: 8px; padding: 2px 0; font-size: 12.5px; overflow-wrap: anywhere; }
    .looks button { flex: none; width: 24px; height: 24px; border: 0; background: none; color: inherit; cursor: pointer; }
    .acts { display: flex; flex-wrap: wrap; gap: 6px; }
  `,
})
export class RequestItemCard {
  protected readonly wordsOf = wordsOf;

  protected readonly store = inject(RequestsStore);
  readonly #site = inject(SiteStore);
  readonly #messages = inject(Messages);
  readonly item = input.required<RequestItem>();
  readonly worked = output();
  protected readonly standings = REQUEST_STANDINGS.map((standing) => ({ standing, label: STANDING_WORDS[standing] }));
  protected readonly holds = computed(() => this.store.holdsOf(this.item()));
  protected readonly parts = computed(() => [...(this.#site.site()?.parts ?? [])]);
  protected readonly pages = computed(() => [...this.#site.captured()]);
  protected readonly made = computed(
    () => this.#site.overrides().filter(({ id }) => this.item().overrides.includes(id)).length,
  );
  protected readonly missedWords = computed(() => {
    const [first] = this.holds()?.missed ?? [];
    if (!first) return '';
    const page = this.pages().find(({ id }) => id === first.pageId)?.name ?? '';
    return `${page}, ${first.states.map((state) => say(stateTold(state)).toLowerCase()).join(' and ')}, ${first.width} px: ${first.shown}`;
  });

  protected spotOf({ pageId, element }: { readonly pageId: number; readonly element: number }) {
    return { page: pageId, element };
  }

  protected change<Name extends keyof RequestItem>(name: Name, value: RequestItem[Name]): void {
    if (typeof value === 'string' && name === 'words' && value.trim() === '') return;
    this.store.change(this.item().id, wordsOf('requests.wish-changed', { words: this.item().words }), {
      [name]: value,
    });
  }

  protected stand(standing: RequestStanding): void {
    this.store.change(
      this.item().id,
      wordsOf('requests.wish', { standing: STANDING_WORDS[standing], words: this.item().words }),
      { standing },
    );
  }

  /** A question that is asked is waited for. */
  protected ask(question: string): void {
    const isAsked = question.trim() !== '' && this.item().standing === 'to do';
    this.store.change(this.item().id, wordsOf('requests.ask-back', { words: this.item().words }), {
      question,
      ...(isAsked ? { standing: 'asked' as const } : {}),
    });
  }

  protected lookWords({ property, value, state, widths }: RequestLook): string {
    const when = state === null ? wordsOf('requests.every-state') : say(stateTold(state)).toLowerCase();
    const from = widths?.min == null ? '' : wordsOf('requests.from-px', { min: widths.min });
    const to = widths?.max == null ? '' : wordsOf('requests.up-to-width', { max: widths.max });
    return `${say(propertyTold(property))}: ${say(valueTold({ palette: this.#site.palette() }, value))}, ${when}${from}${to}`;
  }

  protected addLooks(looks: readonly RequestLook[]): void {
    const known = new Set(this.item().looks.map((look) => JSON.stringify(look)));
    const added = looks.filter((look) => !known.has(JSON.stringify(look)));
    const next = [...this.item().looks, ...added];
    if (next.length > MOST_LOOKS)
      this.#messages.report({
        title: wordsOf('requests.more-than-looks', { MOSTLOOKS: MOST_LOOKS }),
        message: wordsOf('requests.last-were-left-out', { next: next.length - MOST_LOOKS }),
        isLost: false,
      });
    this.store.change(this.item().id, wordsOf('requests.name-look', { words: this.item().words }), {
      looks: next.slice(0, MOST_LOOKS),
    });
  }

  protected dropLook(at: number): void {
    this.store.change(this.item().id, wordsOf('requests.take-look-away', { words: this.item().words }), {
      looks: this.item().looks.filter((_, i) => i !== at),
    });
  }

  protected workOn(): void {
    this.store.workOn(this.item());
    this.worked.emit();
  }
}
