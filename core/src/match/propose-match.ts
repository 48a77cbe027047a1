import { compositeOver } from '../color/contrast.js';
import { deltaE2000OfLab } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { elementOf, pageOf, partOf, type SiteModel } from '../site/site-model.js';
import { WHITE, type Color } from '../values/color.js';
import { LIGHTINGS, type Lighting } from '../veneer/lighting.js';
import { colorOfValue, type PlainValue } from '../veneer/override-value.js';
import { colorOfCss, type Palette } from '../veneer/palette.js';
import { aloneCost, weightOf, type ActionStanding } from './alone-cost.js';
import { candidatesOf, figuresOf, invertedFigures, type Candidate, type ColorFigures } from './candidates.js';
import { BROKEN_COST, JUST_NOTICED } from './fitness.js';
import type { FoundColor, FoundColors, Meeting } from './found-color.js';
import { FILL_JOBS } from './job.js';
import type { Becomes, MatchChoices, MatchProposal, ProposedRow } from './proposal.js';
import { reasonFor } from './reasons.js';
import type { MatchScope } from './scope.js';
import { CARRIED_JOBS, ratioOf, tieCost, unmetIn, type Tie } from './tie.js';
import { shownOf, type Variable } from './variable.js';

/** Passes over all rows before the search is called settled, at most. */
const MOST_PASSES = 10;
/** Choices a row keeps for being changed together with another. */
const BEST_ALONE = 14;
/** Choices of a fill that are tried with what follows it. */
const FILLS_TRIED = 10;
/** Choices tried for what is still broken, with all that follows from each. */
const MOST_TRIES = 20;
/** Alpha under which an edge is taken for a pale one. */
const THIN = 0.6;

/**
 * What each found colour becomes, chosen for all of them together: the sum of what their use, lightness, chroma and area cost is
 * made small, and what could be read, seen or told apart stays so. Coordinate descent; then, where a condition is not met, pairs of
 * rows and last one row with all that follows from it; the same from run to run.
 */
export function proposeMatch(
  site: SiteModel,
  scope: MatchScope,
  found: FoundColors,
  choices: MatchChoices,
): MatchProposal {
  return proposeRows(site.palette, scope, found, choices, (rows) => regionsOf(site, rows));
}

/** The same for rows that need not be of pages. @param regionsOf regions that rows are painted in: actions of one region are told apart. */
export function proposeRows(
  palette: Palette,
  scope: MatchScope,
  found: FoundColors,
  choices: MatchChoices,
  regionsOf: (rows: readonly FoundColor[]) => ReadonlySet<string>,
): MatchProposal {
  const search = new Search(palette, scope, found, choices, regionsOf);
  search.run();
  return search.proposal();
}

class Search {
  readonly #variables: Variable[] = [];
  readonly #byRow = new Map<string, Variable>();
  readonly #ties: Tie[] = [];
  readonly #tiesOf = new Map<Variable, Tie[]>();

  constructor(
    readonly palette: Palette,
    readonly scope: MatchScope,
    readonly found: FoundColors,
    readonly choices: MatchChoices,
    readonly regionsOf: (rows: readonly FoundColor[]) => ReadonlySet<string>,
  ) {
    const candidates = candidatesOf(palette);
    const largest = found.rows.find(({ job, atRest }) => job === 'ground' && atRest === null)?.id;
    for (const rows of together(found.rows, choices.equal)) {
      const variable = this.#variable(
        rows,
        candidates,
        rows.some(({ id }) => id === largest),
      );
      this.#variables.push(variable);
      for (const row of rows) this.#byRow.set(row.id, variable);
    }
    this.#tie();
  }

  #variable(rows: readonly FoundColor[], candidates: readonly Candidate[], isLargest: boolean): Variable {
    const [lead] = rows;
    const raw = colorOfCss(lead.hex) ?? WHITE;
    // A line that is thin in alpha is a pale line: it is matched as it is seen, by an opaque one.
    const isThin = (lead.job === 'line' || lead.job === 'frame') && (raw.alpha ?? 1) < THIN && !lead.isOnDark;
    const color = isThin ? compositeOver(raw, WHITE) : raw;
    const figures = figuresOf(color);
    const asFound = isThin ? figuresOf(raw) : figures;
    const isTwice = this.palette.second != null;
    const leave: Candidate = {
      value: null,
      role: null,
      shade: 0,
      figures: asFound,
      inverted: isTwice ? asFound : null,
    };
    const set = rows.map(({ id }) => this.choices.locked[id]).find((choice) => choice !== undefined);
    const isLeft = rows.every(({ isExcepted }) => isExcepted);
    const accent = candidates.find(({ role, shade }) => role === 'accent' && shade === 0);
    const leads = isLargest && this.choices.strategy === 'stand-out' && accent;
    const options = set ? [this.#optionOf(set, leave)] : isLeft ? [leave] : leads ? [accent] : [...candidates, leave];
    const standing = this.#standingOf(rows);
    const weight = Math.max(...rows.map((row) => weightOf(row, this.found.rows)));
    return {
      rows,
      lead,
      found: figures,
      alpha: color.alpha ?? 1,
      weight,
      options,
      alone: options.map(
        (option) =>
          weight * aloneCost(option, lead, figures, this.choices.strategy, this.scope, standing, isLargest, isTwice),
      ),
      isLocked: set !== undefined,
      asFound: rows.flatMap(({ hexes }) => hexes).flatMap((hex) => figuresIn(hex)),
      at: 0,
    };
  }

  /** Whether rows fill the main action, others beside it, or there is none to tell them from. */
  #standingOf(rows: readonly FoundColor[]): ActionStanding {
    const mains = this.choices.mains ?? this.found.mains;
    if (mains.length === 0) return 'alone';
    const isMain = rows.some(({ places }) =>
      places.some(({ pageId, element }) => mains.some((main) => main.pageId === pageId && main.element === element)),
    );
    return isMain ? 'main' : 'other';
  }

  #optionOf(choice: Becomes, leave: Candidate): Candidate {
    if (choice.kind === 'leave') return leave;
    const color = colorOfValue(choice.value, this.palette);
    if (!color) return leave;
    const role = choice.value.kind === 'role' ? choice.value.role : null;
    const shade = choice.value.kind === 'literal' ? 0 : choice.value.shade;
    const inverted = invertedFigures(choice.value, this.palette);
    return { value: choice.value, role, shade, figures: figuresOf(color), inverted };
  }

  #tie(): void {
    const add = (tie: Tie): void => {
      this.#ties.push(tie);
      for (const end of new Set([tie.a, tie.b, tie.behind, tie.film])) {
        if (!end || !('rows' in end)) continue;
        const list = this.#tiesOf.get(end);
        if (list) list.push(tie);
        else this.#tiesOf.set(end, [tie]);
      }
    };
    for (const meeting of this.found.meetings) {
      const a = this.#byRow.get(meeting.ink);
      const b = meeting.ground === null ? null : (this.#byRow.get(meeting.ground) ?? null);
      const outside = meeting.ground === null ? colorOfCss(meeting.outside) : null;
      if (!a || a === b || (meeting.ground !== null && !b)) continue;
      // What could not be told before is not asked for; what could hardly be read is to be no worse.
      const wanted = meeting.kind === 'read' ? meeting.wanted : Math.min(meeting.wanted, meeting.before);
      if (meeting.kind === 'apart' && meeting.before < meeting.wanted) continue;
      const behind = meeting.veil?.behind == null ? null : (this.#byRow.get(meeting.veil.behind) ?? null);
      const film = this.#filmOf(meeting);
      add({ kind: meeting.kind, a, b, fixed: outside && figuresOf(outside), wanted, meeting, behind, film });
    }
    for (const row of this.found.rows) {
      const a = this.#byRow.get(row.id);
      const b = row.atRest === null ? null : (this.#byRow.get(row.atRest) ?? null);
      if (!a || !b || a === b || row.atRest === null) continue;
      const before = deltaE2000OfLab(a.found.lab, b.found.lab);
      // A step that was not to be noticed is asked of nobody, and what a fill carries may keep still.
      const isAsked = before >= JUST_NOTICED && !CARRIED_JOBS.has(row.job);
      const meeting: Meeting | null = isAsked
        ? {
            kind: 'step',
            ink: row.id,
            ground: row.atRest,
            outside: '',
            veil: null,
            wanted: JUST_NOTICED,
            before,
            places: row.elements,
          }
        : null;
      add({ kind: 'step', a, b, fixed: null, wanted: JUST_NOTICED, meeting });
    }
    const actions = this.#variables.filter(({ lead }) => lead.job === 'action' && lead.atRest === null);
    const regions = actions.map(({ rows }) => this.regionsOf(rows));
    actions.forEach((a, i) => {
      for (const [j, b] of actions.entries())
        // Actions of two parts may well look the same.
        if (
          j > i &&
          [...regions[i]].some((region) => regions[j].has(region)) &&
          deltaE2000OfLab(a.found.lab, b.found.lab) > 2 * JUST_NOTICED
        )
          add({ kind: 'differ', a, b, fixed: null, wanted: JUST_NOTICED, meeting: null });
    });
  }

  #filmOf({ film }: Meeting): Variable | Color | null {
    if (!film) return null;
    return film.row === null ? colorOfCss(film.outside) : (this.#byRow.get(film.row) ?? null);
  }

  run(): void {
    for (const variable of this.#variables) variable.at = least(variable.alone);
    this.#descend();
    this.#moveFills();
    // What one row cannot mend alone is tried with its fellow, from what suits each best.
    for (const tie of this.#ties) {
      if (!tie.b || tieCost(tie) < BROKEN_COST) continue;
      this.#mendTogether(tie.a, tie.b);
    }
    this.#moveBroken();
    this.#descend();
  }

  #descend(): void {
    for (let pass = 0; pass < MOST_PASSES; pass += 1) {
      let isChanged = false;
      for (const variable of this.#variables) {
        const before = variable.at;
        variable.at = this.#bestOf(variable);
        isChanged ||= variable.at !== before;
      }
      if (!isChanged) return;
    }
  }

  #bestOf(variable: Variable): number {
    const ties = this.#tiesOf.get(variable) ?? [];
    const start = variable.at;
    let best = start;
    let cost = Infinity;
    for (let at = 0; at < variable.options.length; at += 1) {
      variable.at = at;
      let own = variable.alone[at];
      for (let i = 0; i < ties.length && own < cost; i += 1) own += tieCost(ties[i]);
      if (own < cost - 1e-9 || (at === start && own <= cost)) {
        cost = own;
        best = at;
      }
    }
    variable.at = start;
    return best;
  }

  #moveFills(): void {
    for (const fill of this.#variables) this.#moveFill(fill, null);
  }

  /** A fill hardly moves alone, since all that is read on it holds it: it is tried with what follows it, but for what is held. */
  #moveFill(fill: Variable, held: Variable | null): void {
    if (!FILL_JOBS.has(fill.lead.job) || fill.options.length === 1) return;
    const around = new Set((this.#tiesOf.get(fill) ?? []).flatMap(({ a, b }) => (b ? [a, b] : [a])));
    around.delete(fill);
    if (held) around.delete(held);
    const moved = [fill, ...around];
    const ties = [...new Set(moved.flatMap((variable) => this.#tiesOf.get(variable) ?? []))];
    const cost = (): number =>
      moved.reduce((sum, { alone, at }) => sum + alone[at], 0) + ties.reduce((sum, tie) => sum + tieCost(tie), 0);
    let best = cost();
    for (const at of bestAlone(fill.alone).slice(0, FILLS_TRIED)) {
      if (at === fill.at) continue;
      const before = moved.map((variable) => variable.at);
      fill.at = at;
      for (const other of around) other.at = this.#bestOf(other);
      const after = cost();
      if (after < best - 1e-9) best = after;
      else moved.forEach((variable, k) => (variable.at = before[k]));
    }
  }

  #isBroken(variable: Variable): boolean {
    return (this.#tiesOf.get(variable) ?? []).some((tie) => tieCost(tie) >= BROKEN_COST);
  }

  /** What is still broken is tried with other options of either end, and all that follows from each: one of them may stand in the way. */
  #moveBroken(): void {
    const ends = new Set<Variable>();
    for (const tie of this.#ties)
      if (tieCost(tie) >= BROKEN_COST) for (const end of [tie.a, tie.b]) if (end) ends.add(end);
    let best = this.#wholeCost();
    let tries = 0;
    for (const end of ends) {
      for (const at of bestAlone(end.alone)) {
        if (at === end.at || tries >= MOST_TRIES || !this.#isBroken(end)) continue;
        tries += 1;
        const before = this.#variables.map((variable) => variable.at);
        end.at = at;
        this.#settleAround(end);
        const after = this.#wholeCost();
        if (after < best - 1e-9) best = after;
        else this.#variables.forEach((variable, k) => (variable.at = before[k]));
      }
    }
  }

  #wholeCost(): number {
    const alone = this.#variables.reduce((sum, variable) => sum + variable.alone[variable.at], 0);
    return this.#ties.reduce((sum, tie) => sum + tieCost(tie), alone);
  }

  /** Lets what meets a variable that was set follow it, and what meets those, as far as anything changes. */
  #settleAround(held: Variable): void {
    let changed = new Set([held]);
    for (let pass = 0; pass < MOST_PASSES && changed.size > 0; pass += 1) {
      const next = new Set<Variable>();
      for (const variable of this.#fellowsOf(changed)) {
        if (variable === held) continue;
        const before = variable.at;
        variable.at = this.#bestOf(variable);
        if (this.#isBroken(variable)) this.#moveFill(variable, held);
        if (variable.at !== before) next.add(variable);
      }
      changed = next;
    }
  }

  #fellowsOf(variables: ReadonlySet<Variable>): Set<Variable> {
    const ties = [...variables].flatMap((variable) => this.#tiesOf.get(variable) ?? []);
    return new Set(
      ties.flatMap(({ a, b, behind, film }) =>
        [a, b, behind, film].filter((end): end is Variable => end != null && 'rows' in end),
      ),
    );
  }

  #mendTogether(a: Variable, b: Variable): void {
    const kept: [number, number] = [a.at, b.at];
    const around = [...new Set([...(this.#tiesOf.get(a) ?? []), ...(this.#tiesOf.get(b) ?? [])])];
    const cost = (): number => a.alone[a.at] + b.alone[b.at] + around.reduce((sum, tie) => sum + tieCost(tie), 0);
    let best = cost();
    for (const i of bestAlone(b.alone)) {
      b.at = i;
      for (const j of bestAlone(a.alone)) {
        a.at = j;
        const own = cost();
        if (own < best - 1e-9) {
          best = own;
          [kept[0], kept[1]] = [j, i];
        }
      }
    }
    [a.at, b.at] = kept;
  }

  proposal(): MatchProposal {
    const rows = this.found.rows.flatMap((row): ProposedRow[] => {
      const variable = this.#byRow.get(row.id);
      if (!variable) return [];
      const option = variable.options[variable.at];
      const becomes: Becomes = option.value
        ? { kind: 'value', value: withAlpha(option.value, variable.alpha) }
        : { kind: 'leave' };
      return [
        {
          found: row,
          becomes,
          css: hexOf(shownOf(variable)),
          reason: reasonFor(row, option, this.choices.strategy, variable.isLocked),
          isLocked: variable.isLocked,
          worst: this.#worstOf(row.id, 'light'),
          inverted: this.palette.second
            ? { css: hexOf(shownOf(variable, 'inverted')), worst: this.#worstOf(row.id, 'inverted') }
            : null,
        },
      ];
    });
    return {
      strategy: this.choices.strategy,
      rows,
      unmet: (this.palette.second ? LIGHTINGS : (['light'] as const)).flatMap((lighting) =>
        this.#ties.flatMap((tie) => unmetIn(tie, lighting)),
      ),
    };
  }

  #worstOf(rowId: string, lighting: Lighting): ProposedRow['worst'] {
    const variable = this.#byRow.get(rowId);
    let worst: ProposedRow['worst'] = null;
    for (const tie of (variable && this.#tiesOf.get(variable)) ?? []) {
      if (tie.meeting?.ink !== rowId || (tie.kind !== 'read' && tie.kind !== 'seen')) continue;
      const ratio = ratioOf(tie, lighting);
      if (!worst || ratio / tie.meeting.wanted < worst.ratio / worst.wanted)
        worst = { ratio, wanted: tie.meeting.wanted, before: tie.meeting.before };
    }
    return worst;
  }
}

/** Rows that must stay equal in one list; all others alone. */
function together(rows: readonly FoundColor[], equal: MatchChoices['equal']): FoundColor[][] {
  const taken = new Set<string>();
  const lists = rows.flatMap((row): FoundColor[][] => {
    if (taken.has(row.id)) return [];
    const list = equal.find((ids) => ids.includes(row.id));
    const own = list ? rows.filter(({ id }) => list.includes(id)) : [row];
    for (const { id } of own) taken.add(id);
    return [own];
  });
  return lists;
}

function least(costs: readonly number[]): number {
  return costs.reduce((best, cost, i) => (cost < costs[best] - 1e-9 ? i : best), 0);
}

function bestAlone(costs: readonly number[]): number[] {
  return costs
    .map((cost, i) => [cost, i] as const)
    .sort((a, b) => a[0] - b[0] || a[1] - b[1])
    .slice(0, BEST_ALONE)
    .map(([, i]) => i);
}

function withAlpha(value: PlainValue, alpha: number): PlainValue {
  return alpha < 1 && value.kind !== 'literal' ? { ...value, alpha: Number(alpha.toFixed(4)) } : value;
}

function figuresIn(hex: string): ColorFigures[] {
  const color = colorOfCss(hex);
  return color ? [figuresOf(color)] : [];
}

/** Parts of pages in which rows are painted at rest; what is in none stands together by page. */
function regionsOf(site: SiteModel, rows: readonly FoundColor[]): ReadonlySet<string> {
  const places = rows.flatMap((row) => row.places.filter(({ state }) => state === 'rest'));
  return new Set(
    places.map(({ pageId, element }) => {
      const page = pageOf(site, pageId);
      return `${pageId}/${partOf(site, page, elementOf(page, element))?.id ?? ''}`;
    }),
  );
}
