import { errorText, say, type Spoken, wordsOf } from '@upper-veneer/words';
import { Injectable, inject, signal } from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import type { ChangeRequest } from '@upper-veneer/contract';
import {
  stateTold,
  isOfAnother,
  valueTold,
  wishOf,
  type Companion,
  type Override,
  type OverrideState,
  type OverrideValue,
  type OverrideWish,
  type Reach,
  type Repair,
  type WidthRange,
} from '@upper-veneer/core';
import { Subject, concatMap } from 'rxjs';
import { ApiProblem } from '../../shared/api/api-problem';
import { Engine } from '../../shared/engine/engine';
import { DraftEdits } from '../../shared/site/draft-edits';
import { Messages } from '../../shared/spoken/messages';
import { SiteStore } from '../../shared/site/site-store';
import { Whereabouts } from '../../shared/site/whereabouts';
import { BenchAnswers, otherOf } from './bench-answers';
import { BenchSelection } from './bench-selection';
import { describeChange } from './change-label';

/** A change the designer asks for, and how undo calls it. */
interface Wish {
  readonly label: string;
  readonly wishes: readonly OverrideWish[];
}

/** What the Bench does: every act is one step of undo, stored before it shows. */
@Injectable()
export class BenchActs {
  readonly #site = inject(SiteStore);
  readonly #edits = inject(DraftEdits);
  readonly #messages = inject(Messages);
  readonly #engine = inject(Engine);
  readonly #selection = inject(BenchSelection);
  readonly #answers = inject(BenchAnswers);
  readonly #asked = new Subject<Wish>();

  /** Why the last wish cannot be written; empty when it could. */
  readonly refusal = signal('');
  /** The look copied last. */
  readonly look = inject(Whereabouts).look;

  constructor() {
    this.#asked
      .pipe(
        concatMap((wish) => this.#fulfil(wish)),
        takeUntilDestroyed(),
      )
      .subscribe();
    toObservable(this.#selection.target)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.refusal.set(''));
    toObservable(this.#selection.cell)
      .pipe(takeUntilDestroyed())
      .subscribe(() => this.refusal.set(''));
  }

  /** Puts a value into the chosen cell; wishes are fulfilled one after the other. */
  setValue(value: OverrideValue): void {
    const { state } = this.#selection.cell();
    const wish = this.#wishFor(value, state);
    if (!wish) return;
    this.#asked.next({
      label: describeChange(
        state,
        wish.property,
        this.#name(),
        say(valueTold({ palette: this.#site.palette() }, value)),
      ),
      wishes: [wish],
    });
  }

  /** Gives the chosen state the value it has at rest. */
  async asAtRest(): Promise<void> {
    const target = this.#selection.changed();
    const { property, pseudoState } = this.#selection.rowProperty();
    const { state } = this.#selection.cell();
    if (!target || (state === 'rest' && !pseudoState)) return;
    const at = { ...target, state: 'rest' as const, parent: null, property };
    const [own, explained] = await Promise.all([
      this.#engine.remote.overridesOfCell(at),
      this.#engine.remote.explain(target, this.#answers.property(), at, this.#selection.width()),
    ]);
    this.setValue(own.at(-1)?.value ?? { kind: 'literal', css: explained.resolved });
  }

  /** Takes our overrides out of the chosen cell. */
  clearCell(): void {
    const { state } = this.#selection.cell();
    this.#drop(
      this.#answers.cellOverrides(),
      wordsOf('bench.clear', {
        stateWord: this.#answers.stateWord(state).toLowerCase(),
        what: say(this.#selection.rowProperty().words),
        name: this.#name(),
      }),
    );
  }

  /** Takes every override out of the part the target is in. */
  clearPart(): void {
    const partId = this.#answers.inspection()?.partId ?? null;
    const part = this.#site.site()?.parts.find(({ id }) => id === partId);
    if (part)
      this.#drop(
        this.#site.overrides().filter((override) => override.partId === part.id),
        wordsOf('bench.reset', { name: part.name }),
      );
  }

  /** Chooses how far overrides reach; one that the chosen cell has already is written anew for it. */
  setReach(reach: Reach, group: string | null = this.#selection.group()): void {
    if (reach === this.#selection.reach() && group === this.#selection.group()) return;
    this.#selection.reach.set(reach);
    this.#selection.group.set(group);
    this.#rewrite();
  }

  /** Chooses the widths overrides hold at; one that the chosen cell has already moves to them. */
  setRange(range: WidthRange | null): void {
    const before = this.#answers.ownOverride();
    this.#selection.range.set(range);
    if (before) void this.#move(before);
  }

  /** Keeps overrides to some pages, or to all. */
  setPages(pages: readonly number[] | null): void {
    this.#selection.pages.set(pages);
    this.#rewrite();
  }

  /** Leaves a single match out of the reach, or takes it in again. */
  toggleSpared(pageId: number, element: number): void {
    const isThere = this.#selection.spared().some((spot) => spot.pageId === pageId && spot.element === element);
    this.#selection.spared.update((spared) =>
      isThere
        ? spared.filter((spot) => spot.pageId !== pageId || spot.element !== element)
        : [...spared, { pageId, element }],
    );
    this.#rewrite();
  }

  /** Fills one state, or all of them, from rest. */
  async fillStates(only?: OverrideState): Promise<void> {
    const target = this.#selection.target();
    if (!target) return;
    const { wishes, leftAlone } = await this.#engine.remote.proposeStates(
      { ...target, ...this.scope(), width: this.#selection.width() },
      only,
    );
    if (wishes.length === 0) {
      this.#messages.report({
        title: wordsOf('bench.nothing-fill'),
        message:
          leftAlone > 0
            ? LEFT_ALONE
            : only
              ? wordsOf('bench.already-follows-from-rest', { what: say(stateTold(only)) })
              : wordsOf('bench.all-states-already-follow'),
        isLost: false,
      });
      return;
    }
    this.#asked.next({
      label: wordsOf('bench.from-rest', {
        only: only ? 'yes' : 'no',
        what: only ? say(stateTold(only)) : '',
        name: this.#name(),
        left: leftWords(leftAlone),
      }),
      wishes,
    });
  }

  async copyLook(): Promise<void> {
    const target = this.#selection.target();
    if (target) this.look.set(await this.#engine.remote.copyLook(target, this.#selection.width()));
  }

  /** Gives the target the look copied last: only where it differs. */
  async pasteLook(): Promise<void> {
    const target = this.#selection.target();
    const look = this.look();
    if (!target || !look) return;
    const { wishes, leftAlone } = await this.#engine.remote.pasteLook(
      look,
      { ...target, ...this.scope() },
      this.#selection.width(),
    );
    if (wishes.length === 0)
      this.#messages.report({
        title: wordsOf('bench.nothing-paste'),
        message: leftAlone > 0 ? LEFT_ALONE : wordsOf('bench.already-looks-like', { name: look.name }),
        isLost: false,
      });
    else
      this.#asked.next({
        label: wordsOf('bench.look', { name: look.name, name2: this.#name(), left: leftWords(leftAlone) }),
        wishes,
      });
  }

  repair({ label, wishes }: Spoken<Repair>): void {
    this.#asked.next({ label: `${label}, ${this.#name()}`, wishes });
  }

  /** Says that a state is meant to look as it does beside the override of the chosen cell. */
  settle(state: OverrideState): void {
    const override = this.#answers.cellOverrides().at(-1);
    if (override)
      this.#store({
        label: wordsOf('bench.meant-so', { stateWord: this.#answers.stateWord(state), name: this.#name() }),
        put: [{ ...override, meant: [...new Set([...(override.meant ?? []), state])] }],
        drop: [],
      });
  }

  takeCompanions(companions: readonly Spoken<Companion>[]): void {
    if (companions.length > 0)
      this.#asked.next({
        label: wordsOf('bench.companions', {
          companions: companions.length,
          name: companions[0].name,
          proposedWords: companions[0].proposedWords,
          name2: this.#name(),
        }),
        wishes: companions.map(({ wish }) => wish),
      });
  }

  /** Puts a selector written by hand in the place of an override's own; empty takes it away again. */
  setSelector(override: Override, selector: string): void {
    if (selector.trim() === '') {
      this.#asked.next({
        label: wordsOf('bench.selector-written-for-me', { name: this.#name() }),
        wishes: [{ ...wishOf(override, this.#selection.width()), isAfresh: true }],
      });
      return;
    }
    this.#store({
      label: wordsOf('bench.selector', { selector: selector.trim() }),
      put: [{ ...override, selector: selector.trim(), isByHand: true }],
      drop: [],
    });
  }

  #wishFor(value: OverrideValue, state: OverrideState): OverrideWish | null {
    const target = this.#selection.changed();
    const inspection = this.#answers.inspection();
    if (!target || !inspection) return null;
    const { property, pseudoState } = this.#selection.rowProperty();
    return {
      ...target,
      ...this.scope(),
      state,
      property,
      value,
      width: this.#selection.width(),
      ...(pseudoState ? { pseudoState } : {}),
      ...(isOfAnother(state) ? { parent: otherOf(inspection, state) } : {}),
    };
  }

  /** How far overrides reach that are made now. */
  scope(): Pick<OverrideWish, 'reach' | 'group' | 'pages' | 'spared' | 'widths'> {
    return {
      reach: this.#selection.reach(),
      group: this.#selection.reach() === 'group' ? this.#selection.group() : null,
      pages: this.#selection.pages(),
      spared: this.#selection.spared(),
      widths: this.#selection.range(),
    };
  }

  /** Writes the override of the chosen cell anew, for the reach that is chosen now. */
  #rewrite(): void {
    const override = this.#answers.ownOverride();
    if (override) this.setValue(override.value);
  }

  async #move(before: Override): Promise<void> {
    const wish = this.#wishFor(before.value, before.state);
    if (!wish) return;
    const plan = await this.#engine.remote.plan([wish]);
    this.refusal.set(plan.refused[0] ?? '');
    if (plan.refused.length > 0) return;
    this.#store({
      label: wordsOf('bench.widths', { what: say(stateTold(before.state)), name: this.#name() }),
      put: plan.put,
      drop: [...new Set([...plan.drop, before.id])].filter((id) => !plan.put.some((override) => override.id === id)),
    });
  }

  #drop(overrides: readonly Override[], label: string): void {
    if (overrides.length > 0)
      this.#edits.change({ label: label.slice(0, 200), put: [], drop: overrides.map(({ id }) => id) }).subscribe();
  }

  #store(request: ChangeRequest): void {
    this.#edits.change({ ...request, label: request.label.slice(0, 200) }).subscribe();
  }

  async #fulfil({ label, wishes }: Wish): Promise<void> {
    this.refusal.set('');
    try {
      const { put, drop, refused } = await this.#engine.remote.plan(wishes);
      if (refused.length > 0) this.refusal.set(refused.join(' '));
      if (put.length === 0 && drop.length === 0) return;
      const request: ChangeRequest = { label: label.slice(0, 200), put: put, drop: [...drop] };
      await new Promise<void>((done) => this.#edits.change(request).subscribe({ complete: done }));
    } catch (error) {
      this.#messages.report(new ApiProblem(wordsOf('bench.could-not-be-written'), errorText(error)));
    }
  }

  #name(): string {
    const name = this.#answers.inspection()?.name ?? wordsOf('bench.element');
    return name.length > 80 ? `${name.slice(0, 77)}…` : name;
  }
}

const LEFT_ALONE = wordsOf('bench.what-would-change-exception');

/** How much of a bulk act the site's exceptions left alone, for its label. */
function leftWords(leftAlone: number): string {
  return leftAlone === 0 ? '' : wordsOf('bench.left-alone', { leftAlone });
}
