import { type Spoken, say } from '@upper-veneer/words';
import { Injectable, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  stateTold,
  isOfAnother,
  isSwitchState,
  longhandsOfProperty,
  type GridCell,
  type Inspection,
  type Override,
  type OverrideState,
  type Spot,
} from '@upper-veneer/core';
import { combineLatest } from 'rxjs';
import { askEngine } from '../../shared/engine/ask-engine';
import type { ExplanationView, ForcedStates, Target } from '../../shared/engine/engine-api';
import { Engine } from '../../shared/engine/engine';
import { OpenedParts } from '../../shared/site/opened-parts';
import { SiteStore } from '../../shared/site/site-store';
import { PageLayouts } from '../page/page-layouts';
import { BenchSelection } from './bench-selection';

/** What is known of what is chosen: asked of the worker, and again whenever the choice or the draft changes. */
@Injectable()
export class BenchAnswers {
  readonly #site = inject(SiteStore);
  readonly #engine = inject(Engine);
  readonly #selection = inject(BenchSelection);
  readonly #layouts = inject(PageLayouts);
  readonly #opened = inject(OpenedParts).ids;

  readonly #question = computed(() => ({
    target: this.#selection.target(),
    width: this.#selection.width(),
    scope: this.#selection.scope(),
    veneer: this.#site.veneer(),
    laid: this.#layouts.taken(),
    opened: this.#opened(),
  }));
  readonly inspection = toSignal<Spoken<Inspection> | null, null>(
    toObservable(this.#question).pipe(
      askEngine(
        this.#engine,
        ({ target, width, scope }, engine): Promise<Spoken<Inspection> | null> | null =>
          target ? engine.inspect(target, width, scope) : null,
        null,
      ),
    ),
    { initialValue: null },
  );

  readonly chosenCell = computed<Spoken<GridCell> | null>(() => {
    const { row, state } = this.#selection.cell();
    return (
      this.inspection()
        ?.grid.find((entry) => entry.row === row)
        ?.cells.find((entry) => entry.state === state) ?? null
    );
  });
  /** Longhand the chosen cell is explained by. */
  readonly property = computed(() => {
    const { property, pseudo } = this.#selection.rowProperty();
    const [first] = this.chosenCell()?.longhands ?? [];
    return !pseudo && this.#selection.propertyAt() === 0 && first ? first : longhandsOfProperty(property)[0];
  });

  readonly #cellQuestion = computed(() => {
    const inspection = this.inspection();
    const { property, pseudo, pseudoState } = this.#selection.rowProperty();
    const { state } = this.#selection.cell();
    if (!inspection) return null;
    return {
      pageId: inspection.pageId,
      element: inspection.element,
      pseudo: pseudo ?? inspection.pseudo,
      state,
      parent: otherOf(inspection, state),
      property,
      ...(pseudoState ? { pseudoState } : {}),
      width: this.#selection.width(),
    };
  });
  readonly explanation = toSignal<Spoken<ExplanationView> | null, null>(
    combineLatest([toObservable(this.#cellQuestion), toObservable(this.property)]).pipe(
      askEngine(
        this.#engine,
        ([cell, property], engine): Promise<Spoken<ExplanationView> | null> | null =>
          cell ? engine.explain(cell, property, cell, cell.width) : null,
        null,
      ),
    ),
    { initialValue: null },
  );

  /** Elements that take the chosen property from where the target inherits it. */
  readonly followers = toSignal<readonly Spot[], readonly Spot[]>(
    toObservable(this.explanation).pipe(
      askEngine(
        this.#engine,
        (explanation, engine): Promise<readonly Spot[]> | null => {
          const source = explanation?.inheritedFrom;
          return source
            ? engine.followers(this.#selection.pageId(), source.element, this.property(), this.#selection.width())
            : null;
        },
        [],
      ),
    ),
    { initialValue: [] },
  );

  /** Overrides that decide the chosen cell. */
  readonly cellOverrides = toSignal<readonly Override[], readonly Override[]>(
    toObservable(this.#cellQuestion).pipe(
      askEngine(
        this.#engine,
        (cell, engine): Promise<readonly Override[]> | null => (cell ? engine.overridesOfCell(cell) : null),
        [],
      ),
    ),
    { initialValue: [], equal: (a, b) => JSON.stringify(a) === JSON.stringify(b) },
  );

  /** State attributes that the chosen state puts on the page. */
  readonly forced = toSignal<ForcedStates, ForcedStates>(
    combineLatest([
      toObservable(this.#selection.target),
      toObservable(this.#selection.cell),
      toObservable(this.inspection),
    ]).pipe(
      askEngine(
        this.#engine,
        ([target, { state }], engine): Promise<ForcedStates> | null =>
          target ? engine.forcedStates(target, { state, parent: otherOf(this.inspection(), state) }) : null,
        [],
      ),
    ),
    { initialValue: [] },
  );

  /** Elements that share the chosen reach, on the page shown; those of a finding while it is pointed at. */
  readonly reached = computed(() => {
    const inspection = this.inspection();
    const count = inspection?.reach.find(({ reach }) => reach === this.#selection.reach());
    const spots = this.#selection.shown().length > 0 ? this.#selection.shown() : (count?.places ?? []);
    return spots
      .filter(({ pageId, element }) => pageId === this.#selection.pageId() && element !== inspection?.element)
      .map(({ element }) => element);
  });

  /** The override of the chosen cell that was made on the target itself. */
  readonly ownOverride = computed<Override | null>(() => {
    const target = this.#selection.changed();
    return (
      this.cellOverrides().findLast(
        (override) =>
          override.pageId === target?.pageId &&
          override.element === target.element &&
          override.pseudo === target.pseudo,
      ) ?? null
    );
  });

  /** What a state is called here: for what another element brings about, how that stands then. */
  stateWord(state: OverrideState): string {
    const words = this.inspection()?.carrier?.heads[state];
    return words ? words.charAt(0).toUpperCase() + words.slice(1) : say(stateTold(state));
  }

  /** State attributes that any state puts on the page. */
  forcedStates(target: Target, state: OverrideState): Promise<ForcedStates> {
    return this.#engine.remote.forcedStates(target, { state, parent: otherOf(this.inspection(), state) });
  }
}

/** The element whose state is meant, for states that are not the target's own. */
export function otherOf(inspection: Spoken<Inspection> | null, state: OverrideState): number | null {
  if (!inspection || !isOfAnother(state)) return null;
  return isSwitchState(state) ? (inspection.carrier?.element ?? null) : inspection.parent;
}
