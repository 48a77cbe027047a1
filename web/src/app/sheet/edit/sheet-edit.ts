import { type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, computed, effect, inject, signal, untracked } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import type { SheetProblem } from '@upper-veneer/core';
import { debounceTime, distinctUntilChanged, filter, map, merge, of, switchMap } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import { Engine } from '../../shared/engine/engine';
import type { EditReading } from '../../shared/engine/sheet-api';
import { DraftEdits } from '../../shared/site/draft-edits';
import { SiteStore } from '../../shared/site/site-store';
import { mergeText } from './merge-text';
import { rememberText, rememberedText } from './remembered-text';

/** Typing rests so long before the text is read, ms. */
const PAUSE_MS = 250;

/** An answer with the text it is of. */
interface Of<Answer> {
  readonly text: string;
  readonly answer: Answer;
}

/** The sheet as it is typed: what it comes to, what is wrong with it, and taking it over into the draft. */
@Injectable()
export class SheetEdit {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #edits = inject(DraftEdits);

  /** The sheet of the draft, which the text began from; `null` until it is read. */
  readonly base = signal<{ readonly text: string; readonly head: number } | null>(null);
  readonly text = signal('');
  readonly isDirty = computed(() => this.base() !== null && this.text() !== this.base()?.text);
  /** Site that the text is of. */
  #of = 0;
  /** What happened to the text without anybody typing; empty for nothing. */
  readonly told = signal('');
  readonly isTaking = signal(false);
  /** Whether what is typed would outlast this tab. */
  readonly isKept = signal(true);

  /** Counts drafts, so that an answer of one before is known. */
  readonly #draft = computed(() => this.#site.painted());
  readonly #asked = computed(() => ({ text: this.text(), draft: this.#draft(), base: this.base() }));
  readonly #rested = toObservable(this.#asked).pipe(
    filter(({ base }) => base !== null),
    distinctUntilChanged((a, b) => a.text === b.text && a.draft === b.draft && a.base === b.base),
    switchMap((asked) => merge(of(null), of(asked).pipe(debounceTime(PAUSE_MS)))),
  );
  readonly #reading = toSignal<Of<Spoken<EditReading> | null> | null, null>(
    toObservable(this.#asked).pipe(
      debounceTime(PAUSE_MS),
      filter(({ base }) => base !== null),
      switchMap(({ text }) =>
        of(text).pipe(
          askEngine(this.#engine, (asked, engine) => engine.readSheet(asked), null),
          map((answer) => ({ text, answer })),
        ),
      ),
    ),
    { initialValue: null },
  );
  /** What the text comes to; `null` while it is read. */
  readonly reading = computed(() => (this.#reading()?.text === this.text() ? (this.#reading()?.answer ?? null) : null));
  readonly problems = toSignal<readonly Spoken<SheetProblem>[], readonly Spoken<SheetProblem>[]>(
    this.#rested.pipe(
      askEngine(this.#engine, (asked, engine) => (asked ? engine.sheetProblems(asked.text) : null), []),
    ),
    { initialValue: [] },
  );
  /** Whether the text cannot be taken over as it is. */
  readonly isStopped = computed(() => this.problems().some(({ level }) => level === 'stops'));

  constructor() {
    effect(() => {
      this.#site.veneer();
      untracked(() => void this.#follow());
    });
    effect(() => {
      const [site, base, text] = [this.#site.site(), this.base(), this.text()];
      if (site && base) this.isKept.set(rememberText(site.id, text === base.text ? null : { base: base.text, text }));
    });
  }

  /** Puts the sheet back as it is in the draft. */
  putBack(): void {
    this.text.set(this.base()?.text ?? '');
    this.told.set('');
  }

  /** Takes the text over into the draft, as one step of undo. */
  take(): void {
    const [reading, text, before] = [this.reading(), this.text(), this.base()];
    if (!reading || !before || this.isStopped() || this.isTaking()) return;
    const { put, drop, ownCss } = reading;
    this.isTaking.set(true);
    // What is typed from here on is typed into what is being taken.
    this.base.set({ ...before, text });
    let isStored = false;
    this.#edits.change({ label: wordsOf('sheet.edit-sheet'), put, drop, ...(ownCss ? { ownCss } : {}) }).subscribe({
      next: () => {
        isStored = true;
        this.told.set('');
      },
      complete: () => {
        this.isTaking.set(false);
        // It was refused, or the server is lost: nothing came of it.
        if (!isStored) this.base.set(before);
      },
    });
  }

  /** The draft changed: what is typed is carried over to the sheet it has now. */
  async #follow(): Promise<void> {
    const site = this.#site.site();
    if (!site) return;
    const now = await this.#engine.remote.sheetToEdit().catch((error: unknown) => {
      this.#engine.tell(error);
      return null;
    });
    if (!now || this.#site.site()?.id !== site.id) return;
    const before = this.#of === site.id ? this.base() : null;
    this.#of = site.id;
    const kept = before ? { base: before.text, text: this.text() } : rememberedText(site.id);
    const merged = kept ? mergeText(kept.base, kept.text, now.text) : { text: now.text, conflicts: 0 };
    if (!before && kept && merged.text !== now.text) this.told.set(wordsOf('sheet.what-you-had-typed'));
    else if (before && kept && kept.text !== kept.base && now.text !== kept.base)
      this.told.set(
        merged.conflicts > 0
          ? wordsOf('sheet.draft-changed-meanwhile-place', { conflicts: merged.conflicts })
          : wordsOf('sheet.draft-changed-meanwhile-what'),
      );
    this.text.set(merged.text);
    this.base.set(now);
  }
}
