import { type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import {
  otherLighting,
  rowAsFound,
  shadesLike,
  withRowAsFound,
  withoutStale,
  type Amendments,
  type Becomes,
  type MatchChoices,
  type MatchScope,
  type PlainValue,
  type ShapeBecomes,
  type Strategy,
} from '@upper-veneer/core';
import { EMPTY, lastValueFrom, tap, type Observable } from 'rxjs';
import { Engine } from '../shared/engine/engine';
import type { MatchRow, MatchView } from '../shared/engine/match-api';
import { withProgress } from '../shared/engine/with-progress';
import type { FramedPage } from '../shared/frame/framed-page';
import { DraftEdits } from '../shared/site/draft-edits';
import { LightingSwitch } from '../shared/site/lighting-switch';
import { PageMeasuring } from '../shared/site/page-measuring';
import { SiteStore } from '../shared/site/site-store';
import { TrialsStore } from '../shared/trials/trials-store';
import { countOf, followWords, notWritten, proofWords, told, type Written } from './laid-words';
import { NO_CHOICES, planRequest } from './plan';

/** Viewport width a scope is looked through at, CSS px. */
export const MATCH_WIDTH = 1280;
/** Pages that are laid out to be measured, at most; beyond them rows are ranked by their places. */
const MOST_MEASURED = 12;

export type MatchState =
  | { readonly status: 'none' }
  | { readonly status: 'working'; readonly doing: string; readonly share: number }
  | { readonly status: 'stopped' }
  | { readonly status: 'empty' }
  | { readonly status: 'proposed'; readonly view: Spoken<MatchView> };

/** The scope that is matched, what is proposed for it, and laying it on. */
@Injectable()
export class MatchStore {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #edits = inject(DraftEdits);
  readonly #trials = inject(TrialsStore);
  readonly #lighting = inject(LightingSwitch);
  readonly #measuring = inject(PageMeasuring);
  /** Counts looks begun, so that an older one ends. */
  #run = 0;

  readonly scope = signal<MatchScope | null>(null);
  readonly state = signal<MatchState>({ status: 'none' });
  /** Rows whose colours are left as found in the picture, to see what they do. */
  readonly without = signal<readonly string[]>([]);
  readonly amendments = signal<Amendments>(new Map());
  /** What was laid on last, in words; empty until then. */
  readonly laidWords = signal('');
  readonly laying = signal<{ readonly done: number; readonly of: number } | null>(null);
  readonly refused = signal<readonly string[]>([]);

  /** What is found hangs on, besides the scope. */
  readonly #foundOf = computed(() => {
    const draft = this.#site.draft();
    return draft ? JSON.stringify([draft.structure, draft.swatches, draft.roles, draft.second, draft.exceptions]) : '';
  });
  readonly #shape = computed(() => JSON.stringify(this.#site.draft()?.shape ?? {}));
  readonly key = computed(() => JSON.stringify([this.#site.site()?.id ?? 0, this.scope()]));
  /** What was settled last and is on its way to the database: the next is settled on top of it. */
  readonly #underway = signal<{ readonly scope: string; readonly choices: MatchChoices } | null>(null);
  /** What is settled. */
  readonly choices = computed<MatchChoices>(
    () => {
      const scope = JSON.stringify(this.scope());
      const underway = this.#underway();
      if (underway?.scope === scope) return underway.choices;
      return this.#site.draft()?.plans.find((plan) => plan.scope === scope)?.choices ?? NO_CHOICES;
    },
    { equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );
  readonly view = computed(() => {
    const state = this.state();
    return state.status === 'proposed' ? state.view : null;
  });
  readonly #proposedFor = signal<MatchChoices | null>(null);
  /** Whether the proposal is of what is settled by now: only that is laid on. */
  readonly isCurrent = computed(() => this.#proposedFor() === this.choices());
  /** Draft and proposal as they were laid on, as long as neither has changed. */
  readonly #laidOn = signal<{ readonly version: number; readonly view: Spoken<MatchView> } | null>(null);
  readonly isLaid = computed(() => {
    const laid = this.#laidOn();
    return laid !== null && laid.view === this.view() && laid.version === this.#site.draft()?.version;
  });

  constructor() {
    // Another scope, palette, capture or exception is looked through anew; the veneer is not part of what is found.
    effect(() => {
      if (this.scope() && this.#foundOf() !== '') untracked(() => void this.look());
    });
    // The house shape is no part of what is found.
    effect(() => {
      this.choices();
      this.without();
      this.#shape();
      if (untracked(this.view)) untracked(() => void this.#propose(this.#run));
    });
    effect(() => {
      this.#lighting.lighting();
      if (untracked(this.view)) untracked(() => void this.#show(this.#run));
    });
  }

  choose(scope: MatchScope): void {
    this.without.set([]);
    this.laidWords.set('');
    this.refused.set([]);
    this.scope.set(scope.kind === 'parts' ? { ...scope, partIds: [...scope.partIds].sort((a, b) => a - b) } : scope);
  }

  /** Looks the scope through and proposes. */
  async look(): Promise<void> {
    const scope = this.scope();
    if (!scope) return;
    const run = (this.#run += 1);
    const tell = (doing: string, share: number): void => {
      if (run === this.#run) this.state.set({ status: 'working', doing, share });
    };
    try {
      tell(wordsOf('match.reading-pages'), 0);
      await this.#open(scope);
      await this.#measure(scope, run, tell);
      if (run !== this.#run) return;
      const isFound = await withProgress(
        ({ page, share }: { readonly page: string; readonly share: number }) =>
          tell(wordsOf('match.looking-through', { page }), 0.5 + share / 2),
        (listener) => this.#engine.remote.findColors(scope, MATCH_WIDTH, listener),
      );
      if (isFound && run === this.#run) await this.#propose(run);
    } catch (error) {
      if (run !== this.#run) return;
      this.state.set({ status: 'stopped' });
      this.#engine.tell(error);
    }
  }

  stop(): void {
    this.#run += 1;
    this.state.set({ status: 'stopped' });
    void this.#engine.remote.stopMatch();
  }

  setStrategy(strategy: Strategy): void {
    this.#settle(strategy === 'blend' ? wordsOf('match.blend') : wordsOf('match.stand-out'), {
      ...this.choices(),
      strategy,
    });
  }

  /** Gives rows a value, or leaves them alone; they keep it when proposing again. */
  set(rowIds: readonly string[], becomes: Becomes): void {
    const locked = { ...this.choices().locked };
    for (const id of rowIds) locked[id] = becomes;
    this.#settle(
      becomes.kind === 'leave' ? wordsOf('match.leave-colours-alone') : wordsOf('match.set-what-colour-becomes'),
      {
        ...this.choices(),
        locked,
      },
    );
  }

  /** Gives rows one value, each as much lighter or darker than the first as it was found. */
  setShades(rows: readonly Spoken<MatchRow>[], value: PlainValue): void {
    this.#settle(wordsOf('match.set-what-family-becomes'), {
      ...this.choices(),
      locked: {
        ...this.choices().locked,
        ...shadesLike(
          rows.map(({ found }) => found),
          value,
          this.#site.palette(),
        ),
      },
    });
  }

  /** Keeps rows as they are, or hands them back to the proposal. */
  lock(rowIds: readonly string[], isLocked: boolean): void {
    const locked = { ...this.choices().locked };
    for (const id of rowIds) {
      const row = this.view()?.rows.find(({ found }) => found.id === id);
      if (!isLocked) delete locked[id];
      else if (row) locked[id] = row.becomes;
    }
    this.#settle(isLocked ? wordsOf('match.keep-what-colour-becomes') : wordsOf('match.hand-colour-back'), {
      ...this.choices(),
      locked,
    });
  }

  /** Forgets choices that no longer hold. */
  forgetStale(): void {
    this.#settle(wordsOf('match.forget-what-no-longer'), withoutStale(this.choices(), this.view()?.stale ?? []));
  }

  /** Ties rows so that they stay equal, or lets them go again. */
  tie(rowIds: readonly string[], isTied: boolean): void {
    const others = this.choices()
      .equal.map((list) => list.filter((id) => !rowIds.includes(id)))
      .filter((list) => list.length > 1);
    this.#settle(isTied ? wordsOf('match.colours-must-stay-equal') : wordsOf('match.colours-may-differ'), {
      ...this.choices(),
      equal: isTied ? [...others, [...rowIds]] : others,
    });
  }

  /** Makes some places of a row a row of their own. */
  setApart(row: string, places: readonly string[]): void {
    this.#settle(wordsOf('match.set-places-apart'), {
      ...this.choices(),
      apart: [...(this.choices().apart ?? []), { row, places }],
    });
  }

  /** Merges rows into the first of them. */
  merge(rowIds: readonly string[]): void {
    this.#settle(wordsOf('match.merge-colours'), {
      ...this.choices(),
      merged: [...(this.choices().merged ?? []), rowIds],
    });
  }

  /** Undoes what was set apart from a row or merged into it. */
  regroupAsFound(rowId: string): void {
    this.#settle(wordsOf('match.rows-as-found'), withRowAsFound(this.choices(), rowAsFound(rowId)));
  }

  /** Sets what a shape becomes. */
  setShape(id: string, becomes: ShapeBecomes): void {
    this.#settle(wordsOf('match.set-what-shape-becomes'), {
      ...this.choices(),
      shapes: { ...this.choices().shapes, [id]: becomes },
    });
  }

  /** Chooses which properties of the theme are overridden themselves. */
  setProperties(properties: readonly string[]): void {
    this.#settle(wordsOf('match.override-properties-theme'), { ...this.choices(), properties });
  }

  /** Names the main action by hand. */
  lead(pageId: number, element: number): void {
    this.#settle(wordsOf('match.name-main-action'), { ...this.choices(), mains: [{ pageId, element }] });
  }

  /** Forgets what was set by hand. */
  reset(): void {
    this.#settle(wordsOf('match.propose-all-again'), {
      strategy: this.choices().strategy,
      locked: {},
      equal: [],
      mains: null,
    });
  }

  /** Stores what is settled as one step of undo; the proposal follows what is stored. */
  #settle(label: string, choices: MatchChoices): void {
    const scope = this.scope();
    if (!scope || JSON.stringify(choices) === JSON.stringify(this.choices())) return;
    const underway = { scope: JSON.stringify(scope), choices };
    this.#underway.set(underway);
    // Stored or refused, what is in the draft holds from then on.
    const done = (): void => {
      if (this.#underway() === underway) this.#underway.set(null);
    };
    this.#edits.putPlan(planRequest(label, scope, choices)).subscribe({ complete: done, error: done });
  }

  /** Writes overrides for all places, as one step of undo. */
  layOn(name: string): Promise<void> {
    const view = this.view();
    return this.#lay(async (onProgress) => {
      const laid = await this.#engine.remote.layMatch(onProgress);
      return (
        laid && {
          ...laid,
          label: wordsOf('match.match', { name }),
          words: wordsOf('match.laid', {
            count: countOf(laid),
            follow: followWords(view),
            proof: proofWords(laid.proof, this.#lighting.hasSecond()),
          }),
          refused: [
            ...notWritten(laid.refused),
            ...told(wordsOf('match.does-not-come'), laid.proof.missed),
            ...told(wordsOf('match.changed-outside-scope'), laid.proof.spilt),
          ],
          view,
        }
      );
    });
  }

  /** Keeps the match as a fork of the draft, for a trial; the draft stays as it is. */
  keepAsVariation(name: string): Promise<void> {
    return this.#write(
      (onProgress) => this.#engine.remote.layMatch(onProgress),
      (laid) => {
        if (laid.put.length === 0 && laid.drop.length === 0) {
          this.laidWords.set(wordsOf('match.nothing-keep-as-draft'));
          return EMPTY;
        }
        return this.#trials
          .act((api, siteId) => api.keepVariation(siteId, { name, put: [...laid.put], drop: [...laid.drop] }))
          .pipe(tap(() => this.laidWords.set(wordsOf('match.kept-as-variation-draft', { name }))));
      },
    );
  }

  /** Takes the part's own colours back, so that it shows what its theme says, as one step of undo. */
  neutralise(name: string): Promise<void> {
    return this.#lay(async (onProgress) => {
      const laid = await this.#engine.remote.neutralise(onProgress);
      const hard = laid?.hardToRead ?? 0;
      return (
        laid && {
          ...laid,
          label: wordsOf('match.leave-theme', { name }),
          words: wordsOf('match.left-theme-texts-were', {
            count: countOf(laid),
            themes: laid.themes,
            proof: proofWords(laid.proof, this.#lighting.hasSecond()),
          }),
          refused: [
            ...notWritten(laid.refused),
            ...(hard > 0 ? [wordsOf('match.element-elements-can-hardly', { hard })] : []),
            ...told(wordsOf('match.still-part-own'), laid.proof.missed),
            ...told(wordsOf('match.changed-outside-scope'), laid.proof.spilt),
          ],
          view: null,
        }
      );
    });
  }

  #lay(
    write: (onProgress: (progress: { readonly done: number; readonly of: number }) => void) => Promise<Written | null>,
  ): Promise<void> {
    return this.#write(write, (written) => {
      this.refused.set(written.refused);
      if (written.put.length === 0 && written.drop.length === 0) {
        this.laidWords.set(wordsOf('match.nothing-lay'));
        return EMPTY;
      }
      return this.#edits
        .change({ label: written.label.slice(0, 200), put: [...written.put], drop: [...written.drop] })
        .pipe(
          tap(({ version }) => {
            if (written.view) this.#laidOn.set({ version, view: written.view });
            this.laidWords.set(written.words);
          }),
        );
    });
  }

  /** Has overrides written, and stores them in one way or another. */
  async #write<T>(
    write: (onProgress: (progress: { readonly done: number; readonly of: number }) => void) => Promise<T | null>,
    store: (written: T) => Observable<unknown>,
  ): Promise<void> {
    this.laying.set({ done: 0, of: 0 });
    this.refused.set([]);
    try {
      const written = await withProgress(
        (progress: { readonly done: number; readonly of: number }) => this.laying.set(progress),
        write,
      );
      if (written) await lastValueFrom(store(written), { defaultValue: null });
    } catch (error) {
      this.#engine.tell(error);
    } finally {
      this.laying.set(null);
    }
  }

  stopLaying(): void {
    void this.#engine.remote.stopMatch();
  }

  /** The same scope by the other strategy, as a sheet for the frame. */
  otherCss(): Promise<string> {
    const { strategy, locked, ...rest } = this.choices();
    return this.#engine.remote.previewMatch({
      ...rest,
      locked,
      strategy: strategy === 'blend' ? 'stand-out' : 'blend',
    });
  }

  /** The scope left to its theme, as a sheet for the frame. */
  neutralCss(): Promise<string> {
    return this.#engine.remote.previewNeutral();
  }

  /** The match as the other lighting shows it; `null` on a site of one. */
  async otherLighting(): Promise<FramedPage | null> {
    const lead = this.view()?.lead;
    const scope = this.scope();
    if (!lead || !scope || !this.#lighting.hasSecond()) return null;
    const lit = await this.#engine.remote.otherLighting(this.without(), this.#openable(scope));
    return (
      lit && {
        ...this.framed(lead.pageId, lit.frameCss),
        amendments: new Map(lit.amendments),
        scheme: this.#lighting.schemeIn(otherLighting(this.#lighting.lighting())),
      }
    );
  }

  /** Proposes again, and draws it as the site is lit. */
  async #show(run: number): Promise<void> {
    const scope = this.scope();
    if (scope) await this.#open(scope);
    await this.#propose(run);
  }

  async #propose(run: number): Promise<void> {
    const choices = this.choices();
    const view = await this.#engine.remote.proposeMatch(choices, this.without());
    if (!view || run !== this.#run) return;
    this.#proposedFor.set(choices);
    this.state.set(view.rows.length > 0 ? { status: 'proposed', view } : { status: 'empty' });
  }

  /** Hidden parts of the scope are opened in its pictures. */
  async #open(scope: MatchScope): Promise<void> {
    const lead = await this.#engine.remote.leadOf(scope);
    const openable = this.#openable(scope);
    const entries =
      lead && (openable.length > 0 || this.#lighting.lighting() === 'inverted')
        ? await this.#engine.remote.amendments(lead.pageId, openable)
        : [];
    this.amendments.set(new Map(entries));
  }

  #openable(scope: MatchScope): readonly number[] {
    if (scope.kind !== 'parts') return [];
    return (this.#site.site()?.parts ?? [])
      .filter(({ id, openers }) => openers.length > 0 && scope.partIds.includes(id))
      .map(({ id }) => id);
  }

  async #measure(scope: MatchScope, run: number, tell: (doing: string, share: number) => void): Promise<void> {
    const site = this.#site.site();
    if (!site) return;
    const lead = await this.#engine.remote.leadOf(scope);
    const captured = this.#site.captured();
    const pages = scope.kind === 'site' ? captured : captured.filter(({ id }) => id === lead?.pageId);
    await this.#measuring.measure(
      pages.slice(0, MOST_MEASURED).map(({ id, name }) => ({ id, name, framed: this.framed(id, '') })),
      [MATCH_WIDTH],
      () => run === this.#run,
      (doing, share) => tell(doing, share / 2),
    );
  }

  framed(pageId: number, frameCss: string): FramedPage {
    const site = this.#site.site();
    return {
      url: `/frame/sites/${site?.id}/pages/${pageId}/?v=${site?.draft.structure ?? 0}`,
      veneerPlace: site?.veneerPlace ?? 'head-end',
      frameCss,
      amendments: this.amendments(),
      scheme: this.#lighting.scheme(),
    };
  }
}
