import { compositeOver, contrastRatio } from '../color/contrast.js';
import { deltaE2000OfLab, labOf } from '../color/delta-e.js';
import { nearestPassingShade } from '../color/nearest-passing-shade.js';
import { hexOf } from '../color/read-notation.js';
import type { SiteModel } from '../site/site-model.js';
import { WHITE, type Color } from '../values/color.js';
import { colorOfValue, type PlainValue } from '../veneer/override-value.js';
import { colorOfCss, type Palette } from '../veneer/palette.js';
import { candidatesOf, figuresOf, type Candidate, type ColorFigures } from './candidates.js';
import {
  BROKEN_COST,
  CHROMA_WEIGHT,
  FAR_SHADE_COST,
  LEADING_COST,
  LIGHTNESS_WEIGHT,
  MERGED_COST,
  OTHER_ROLE_COST,
  ROLE_COSTS,
  SHADED_COST,
  SHADE_COST,
  STEP_COST,
  UNUSUAL,
  VIVID,
  WEAK_COST,
  WARNING_ROLES,
  type Strategy,
} from './fitness.js';
import type { FoundColor, FoundColors, Meeting } from './found-color.js';
import { FILL_JOBS, JOB_WORDS, type Job } from './job.js';
import type { Becomes, MatchChoices, MatchProposal, ProposedRow, Unmet } from './proposal.js';
import type { MatchScope } from './scope.js';
import { reasonFor } from './reasons.js';

/** Passes over all rows before the search is called settled, at most. */
const MOST_PASSES = 10;
/** Choices a row keeps for being changed together with another. */
const BEST_ALONE = 14;
/** Choices of a fill that are tried with what follows it. */
const FILLS_TRIED = 10;
/** Alpha under which an edge is taken for a pale one. */
const THIN = 0.6;
/** OKLCH lightness by which a state must differ for its direction to count. */
const DIRECTION = 0.015;
/** ΔE2000 that is just noticed. Source: Mahy, Van Eycken, Oosterlinck 1994. */
const JUST_NOTICED = 2.3;

/**
 * What each found colour becomes, chosen for all of them together: the sum of what their use, lightness, chroma and area cost is
 * made small, and what could be read, seen or told apart stays so. Coordinate descent, then pairs of rows where a condition
 * is not met; the same from run to run.
 */
export function proposeMatch(
  site: SiteModel,
  scope: MatchScope,
  found: FoundColors,
  choices: MatchChoices,
): MatchProposal {
  const search = new Search(site.palette, scope, found, choices);
  search.run();
  return search.proposal();
}

type ActionStanding = 'main' | 'other' | 'alone';

/** One choice to be made: a row, or several that must stay equal. */
interface Variable {
  readonly rows: readonly FoundColor[];
  readonly lead: FoundColor;
  readonly found: ColorFigures;
  readonly alpha: number;
  readonly weight: number;
  readonly options: readonly Candidate[];
  /** What each option costs by itself. */
  readonly alone: readonly number[];
  readonly isLocked: boolean;
  at: number;
}

/** A condition or wish between two choices, or one and a colour that stays. */
interface Tie {
  readonly kind: Meeting['kind'] | 'step' | 'differ';
  readonly a: Variable;
  readonly b: Variable | null;
  readonly fixed: ColorFigures | null;
  readonly wanted: number;
  readonly meeting: Meeting | null;
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
    const leave: Candidate = { value: null, role: null, shade: 0, figures: isThin ? figuresOf(raw) : figures };
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
        (option) => weight * aloneCost(option, lead, figures, this.choices.strategy, this.scope, standing, isLargest),
      ),
      isLocked: set !== undefined,
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
    return { value: choice.value, role, shade, figures: figuresOf(color) };
  }

  #tie(): void {
    const add = (tie: Tie): void => {
      this.#ties.push(tie);
      for (const end of new Set([tie.a, tie.b])) {
        if (!end) continue;
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
      add({ kind: meeting.kind, a, b, fixed: outside && figuresOf(outside), wanted, meeting });
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
            wanted: JUST_NOTICED,
            before,
            places: row.elements,
          }
        : null;
      add({ kind: 'step', a, b, fixed: null, wanted: JUST_NOTICED, meeting });
    }
    const actions = this.#variables.filter(({ lead }) => lead.job === 'action' && lead.atRest === null);
    actions.forEach((a, i) => {
      for (const b of actions.slice(i + 1))
        if (deltaE2000OfLab(a.found.lab, b.found.lab) > 2 * JUST_NOTICED)
          add({ kind: 'differ', a, b, fixed: null, wanted: JUST_NOTICED, meeting: null });
    });
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

  /** A fill hardly moves alone, since all that is read on it holds it: it is tried with what follows it. */
  #moveFills(): void {
    for (const fill of this.#variables) {
      if (!FILL_JOBS.has(fill.lead.job) || fill.options.length === 1) continue;
      const around = new Set((this.#tiesOf.get(fill) ?? []).flatMap(({ a, b }) => (b ? [a, b] : [a])));
      around.delete(fill);
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
          worst: this.#worstOf(row.id),
        },
      ];
    });
    return {
      strategy: this.choices.strategy,
      rows,
      unmet: this.#ties.flatMap((tie) => (tie.meeting && isBroken(tie) ? [unmetOf(tie, tie.meeting)] : [])),
    };
  }

  #worstOf(rowId: string): ProposedRow['worst'] {
    const variable = this.#byRow.get(rowId);
    let worst: ProposedRow['worst'] = null;
    for (const tie of (variable && this.#tiesOf.get(variable)) ?? []) {
      if (tie.meeting?.ink !== rowId || (tie.kind !== 'read' && tie.kind !== 'seen')) continue;
      const ratio = ratioOf(tie);
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

/** How much a row counts beside the others: by its area where it was measured, and its places. */
function weightOf(row: FoundColor, all: readonly FoundColor[]): number {
  const most = Math.max(1, ...all.map(({ area }) => area));
  const many = Math.max(1, ...all.map(({ elements }) => elements));
  return 0.4 + 0.4 * Math.sqrt(row.area / most) + 0.2 * Math.sqrt(row.elements / many);
}

function aloneCost(
  { value, role, shade, figures }: Candidate,
  row: FoundColor,
  found: ColorFigures,
  strategy: Strategy,
  scope: MatchScope,
  standing: ActionStanding,
  isLargest: boolean,
): number {
  // A fill that comes with a state alone lies like a ground under what is there already.
  const job = row.job === 'action' && !row.states.includes('rest') && row.atRest === null ? 'ground' : row.job;
  if (value === null) return leaveCost(row, found);
  const kept = row.isBrand ? (FILL_JOBS.has(job) ? BRAND_FILL : BRAND_INK) : 0;
  const warning = row.isWarning ? WARNING_ROLES[job] : undefined;
  const use = warning
    ? role && warning.includes(role)
      ? 0
      : UNUSUAL
    : role === null
      ? SWATCH_COST
      : (ROLE_COSTS[job][role] ?? UNUSUAL);
  // Blending a part in takes the page's own light and dark for its ground; what stands on it stays as dark as it is beside it.
  const isBlended = strategy === 'blend' && scope.kind === 'parts' && (isLargest || job === 'field');
  const lightness = Math.abs(figures.oklch[0] - found.oklch[0]) * LIGHTNESS_WEIGHT[job] * (isBlended ? 0.4 : 1);
  const chroma =
    (Math.min(1, Math.abs(figures.oklch[1] - found.oklch[1]) / VIVID) * CHROMA_WEIGHT[job]) / (isBlended ? 2 : 1);
  const isLeading = standing === 'main' ? role === 'accent' && shade === 0 : role !== 'accent';
  const rank =
    job === 'action' && row.atRest === null && !row.isWarning && standing !== 'alone'
      ? isLeading
        ? 0
        : LEADING_COST
      : 0;
  // Far off, a shade is hardly its role's any more.
  const shaded = shade === 0 ? 0 : SHADED_COST + Math.abs(shade) * SHADE_COST + shade ** 2 * FAR_SHADE_COST;
  return use + lightness + chroma + shaded + rank + kept;
}

/** What it costs to change what is a colour of the brand already: a fill for nothing, an ink only to be read. */
const BRAND_FILL = 400;
const BRAND_INK = 3;
/** What a swatch costs that has no role. */
const SWATCH_COST = 0.5;
/** Shadows stay as they are where they have no colour; a brand colour stays; anything else is there to be changed. */
function leaveCost({ job, isBrand }: FoundColor, { oklch }: ColorFigures): number {
  if (isBrand) return 0;
  if (job === 'shadow') return oklch[1] < 0.03 ? 0 : 0.5;
  return 2;
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

function optionFigures(variable: Variable): ColorFigures {
  return variable.options[variable.at].figures;
}

/** Colour a row comes to, as strong as what was found. */
function shownOf(variable: Variable): Color {
  const { value, figures } = variable.options[variable.at];
  return value === null ? figures.color : { ...figures.color, alpha: variable.alpha };
}

function withAlpha(value: PlainValue, alpha: number): PlainValue {
  return alpha < 1 && value.kind !== 'literal' ? { ...value, alpha: Number(alpha.toFixed(4)) } : value;
}

/** What a tie costs as things stand. */
function tieCost(tie: Tie): number {
  const { kind, a, b, wanted } = tie;
  switch (kind) {
    case 'read':
    case 'seen': {
      const ratio = ratioOf(tie);
      if (ratio < wanted) return BROKEN_COST + 10 * (wanted - ratio);
      // What could not be read before is mended where that costs little.
      const asked = tie.meeting?.wanted ?? wanted;
      return ratio < asked ? WEAK_COST * (1.3 - ratio / asked) : 0;
    }
    case 'apart': {
      const apart = apartOf(tie);
      return apart >= wanted ? 0 : BROKEN_COST / 5 + (wanted - apart);
    }
    case 'differ':
      return b && deltaE2000OfLab(optionFigures(a).lab, optionFigures(b).lab) < wanted ? MERGED_COST : 0;
    case 'step':
      return b ? stepCost(a, b, wanted) : 0;
  }
}

/** A state keeps its direction and a step that is noticed; the nearer its size to the one found, the better. */
function stepCost(state: Variable, rest: Variable, wanted: number): number {
  const [now, then] = [optionFigures(state), optionFigures(rest)];
  const step = now.oklch[0] - then.oklch[0];
  const was = state.found.oklch[0] - rest.found.oklch[0];
  const isLost =
    deltaE2000OfLab(now.lab, then.lab) < wanted && deltaE2000OfLab(state.found.lab, rest.found.lab) >= wanted;
  const isOther =
    state.options[state.at].role !== rest.options[rest.at].role && isOneHue(state.found, rest.found)
      ? OTHER_ROLE_COST
      : 0;
  // What stands on a fill that answers itself may keep still.
  if (CARRIED_JOBS.has(state.lead.job)) return STEP_COST * CARRIED * Math.abs(step - was) + isOther;
  const isTurned = Math.abs(was) > DIRECTION && step * was < 0;
  return STEP_COST * Math.abs(step - was) + isOther + (isLost ? BROKEN_COST : 0) + (isTurned ? BROKEN_COST / 10 : 0);
}

/** Jobs of what stands on a fill, and how much less their own steps count. */
const CARRIED_JOBS: ReadonlySet<Job> = new Set<Job>(['label', 'icon', 'entry']);
const CARRIED = 0.3;

/** Whether two colours are of one hue, or one of them of none. */
function isOneHue({ oklch: [, c1, h1] }: ColorFigures, { oklch: [, c2, h2] }: ColorFigures): boolean {
  if (c1 < GREY || c2 < GREY) return true;
  const turn = Math.abs(h1 - h2) % 360;
  return Math.min(turn, 360 - turn) <= ONE_HUE;
}

/** OKLCH chroma under which a colour has no hue to speak of, and degrees within which two are of one (common practice). */
const GREY = 0.03;
const ONE_HUE = 35;

function ratioOf({ a, b, fixed }: Tie): number {
  const ground = b ? optionFigures(b) : fixed;
  if (!ground) return 21;
  if (a.alpha < 1) return contrastRatio(compositeOver(shownOf(a), opaque(ground.color)), opaque(ground.color));
  const [over, under] = [optionFigures(a).luminance, ground.luminance];
  return (Math.max(over, under) + 0.05) / (Math.min(over, under) + 0.05);
}

function apartOf({ a, b, fixed }: Tie): number {
  const ground = b ? optionFigures(b) : fixed;
  if (!ground) return 100;
  const lab = a.alpha < 1 ? labOf(compositeOver(shownOf(a), opaque(ground.color))) : optionFigures(a).lab;
  return deltaE2000OfLab(lab, ground.lab);
}

function opaque(color: Color): Color {
  return { ...color, alpha: 1 };
}

/** What a condition comes to: ΔE2000 where things are told apart, else contrast. */
function figureOf(tie: Tie): number {
  return tie.kind === 'apart' || tie.kind === 'step' ? apartOf(tie) : ratioOf(tie);
}

function isBroken(tie: Tie): boolean {
  return figureOf(tie) < tie.wanted - 1e-9;
}

function unmetOf(tie: Tie, meeting: Meeting): Unmet {
  const ground = tie.b ? opaque(shownOf(tie.b)) : (tie.fixed?.color ?? WHITE);
  const isApart = tie.kind === 'apart' || tie.kind === 'step';
  const after = figureOf(tie);
  const nearest = isApart ? null : nearestPassingShade(opaque(shownOf(tie.a)), ground, meeting.wanted);
  return {
    meeting,
    after,
    nearest: nearest && hexOf(nearest.color),
    words: isApart
      ? `${tie.a.lead.paints} can hardly be told from ${tie.kind === 'step' ? 'how it is at rest' : 'what it stands on'} (ΔE ${after.toFixed(1)})`
      : `${JOB_WORDS[tie.a.lead.job]} comes to ${(Math.floor(after * 10) / 10).toFixed(1)} : 1 on ${hexOf(ground)}, ${meeting.wanted} is asked`,
  };
}
