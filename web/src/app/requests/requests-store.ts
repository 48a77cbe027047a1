import { type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { ClientRequest, ItemHolds, RequestItem, RequestLook } from '@upper-veneer/core';
import { debounceTime, distinctUntilChanged, map } from 'rxjs';
import { askEngine } from '../shared/engine/ask-engine';
import { Engine } from '../shared/engine/engine';
import { DraftEdits } from '../shared/site/draft-edits';
import { ItemWorkedOn } from '../shared/site/item-worked-on';
import { SiteStore } from '../shared/site/site-store';

/** A change waits so long for the next before the list is proved, ms. */
const PAUSE_MS = 400;
const NONE: ReadonlyMap<string, Spoken<ItemHolds>> = new Map();

/** How an item stands: what the designer said, or what proof says of what is done. */
export type ShownStanding = 'to do' | 'asked' | 'refused' | 'done' | 'holds' | 'fails';

/** The client's list: its items, what proof says of each, and the one that is worked on. */
@Injectable({ providedIn: 'root' })
export class RequestsStore {
  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #worked = inject(ItemWorkedOn);

  readonly isOpen = signal(false);
  readonly requests = computed<readonly ClientRequest[]>(() => this.#site.draft()?.requests ?? []);
  readonly items = computed(() => this.requests().flatMap(({ items }) => items));
  /** The item that is worked on. */
  readonly worked = computed(() => this.items().find(({ id }) => id === this.#worked.id()) ?? null);

  readonly #holds = toSignal<ReadonlyMap<string, Spoken<ItemHolds>>, ReadonlyMap<string, Spoken<ItemHolds>>>(
    toObservable(
      computed(() => ({
        draft: this.#site.painted(),
        veneer: this.#site.veneer(),
        items: this.items()
          .filter(({ looks }) => looks.length > 0)
          .map(({ id, looks, pageIds }) => ({ id, looks, pageIds })),
      })),
    ).pipe(
      distinctUntilChanged(
        (a, b) => a.draft === b.draft && a.veneer === b.veneer && JSON.stringify(a.items) === JSON.stringify(b.items),
      ),
      debounceTime(PAUSE_MS),
      askEngine(inject(Engine), ({ items }, engine) => (items.length > 0 ? engine.requestHolds(items) : null), []),
      map((found) => new Map(found)),
    ),
    { initialValue: NONE },
  );

  /** What proof says of an item; `null` where no look is named, or it is not proved yet. */
  holdsOf(item: RequestItem): Spoken<ItemHolds> | null {
    return item.looks.length > 0 ? (this.#holds().get(item.id) ?? null) : null;
  }

  standingOf(item: RequestItem): ShownStanding {
    const holds = this.holdsOf(item);
    if (item.standing !== 'done' || !holds) return item.standing;
    return holds.misses === 0 && holds.unseen.length === 0 && holds.places > 0 ? 'holds' : 'fails';
  }

  readonly count = computed(() => {
    const items = this.items();
    const settled = items.filter((item) => ['holds', 'refused', 'done'].includes(this.standingOf(item))).length;
    return { items: items.length, settled };
  });

  /** The item that an override was made for; `null` for none. */
  itemOf(overrideId: string): RequestItem | null {
    return this.items().find(({ overrides }) => overrides.includes(overrideId)) ?? null;
  }

  workOn(item: RequestItem | null): void {
    this.#worked.id.set(item?.id ?? null);
  }

  put(label: string, requests: readonly ClientRequest[]): void {
    this.#edits.putRequests({ label: label.slice(0, 200), requests }).subscribe();
  }

  /** Changes one item. */
  change(id: string, label: string, other: Partial<RequestItem>): void {
    this.put(
      label,
      this.requests().map((request) => ({
        ...request,
        items: request.items.map((item) => (item.id === id ? { ...item, ...other } : item)),
      })),
    );
  }

  /** Takes an item away, and its request with the last. */
  drop(id: string): void {
    const item = this.items().find((own) => own.id === id);
    if (!item) return;
    if (this.#worked.id() === id) this.workOn(null);
    this.put(
      wordsOf('requests.take-away', { words: item.words }),
      this.requests()
        .map((request) => ({ ...request, items: request.items.filter((own) => own.id !== id) }))
        .filter(({ items }) => items.length > 0),
    );
  }

  /** Looks that the overrides made for an item come to, each once. */
  looksMadeFor(item: RequestItem): RequestLook[] {
    const looks = this.#site
      .overrides()
      .filter(({ id }) => item.overrides.includes(id))
      .map(({ selector, property, value, state, group, reach, widths }): RequestLook => ({
        // What was gathered is what is meant, whatever the rule had to ask for besides.
        selector: reach === 'group' && group ? group : selector,
        property,
        value,
        state,
        ...(widths ? { widths } : {}),
      }));
    return [...new Map(looks.map((look) => [JSON.stringify(look), look])).values()];
  }
}
