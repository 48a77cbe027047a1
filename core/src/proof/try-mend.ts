import { inner, message, type Message } from '../message/message.js';
import { toEnd } from '../to-end.js';
import type { FoundPlace } from '../match/found-color.js';
import { layTasks } from '../match/lay-match.js';
import { tasksOf, type Task } from '../match/lay-tasks.js';
import type { MatchProposal } from '../match/proposal.js';
import { planAll, withOverrides } from '../plan/plan-override.js';
import { proposeStates } from '../plan/propose-states.js';
import { alikeKey } from '../selectors/alike.js';
import { elementOf, pageOf, type SiteModel } from '../site/site-model.js';
import type { Override } from '../veneer/override.js';
import { plainCssOfValue, type OverrideValue, type PlainValue } from '../veneer/override-value.js';
import { roleTold } from '../veneer/own-role.js';
import type { RoleName } from '../veneer/palette.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { wishOf } from '../veneer/wish-of.js';
import { nearestBrand, passingColors } from './mend-candidates.js';
import { groundMends, pictureMends, type PictureMend } from './picture-mends.js';
import type { Proof, ProofFinding, ProofKind, ProofPlace } from './proof-finding.js';
import type { ProofMemo } from './proof-memo.js';
import { leadingState } from './proof-state.js';
import { proveSite } from './prove-site.js';

/** Overrides that mend a finding, resolved over the whole site. */
export interface Mend {
  /** What it comes to: `Ink, ΔE 9.1 away: 5.1 : 1`. */
  readonly label: Message;
  readonly put: readonly Override[];
  readonly drop: readonly string[];
  readonly after: SiteModel;
}

/** What came of looking for a mend. */
export type MendTried =
  | { readonly ok: true; readonly mend: Mend }
  /** Why there is none. */
  | { readonly ok: false; readonly reason: Message };

interface Attempt {
  readonly label: Message;
  plan(): { readonly put: readonly Override[]; readonly drop: readonly string[]; readonly refused: readonly Message[] };
}

/**
 * Looks for overrides that mend a finding in all its places. What comes to be offered has been laid on and the site looked at once
 * more with it: the finding is gone, and nothing fails that did not before.
 * A generator: it yields while it looks.
 */
export function* tryMend(
  site: SiteModel,
  finding: ProofFinding,
  proof: Proof,
  memo: ProofMemo,
): Generator<unknown, MendTried> {
  const attempts = attemptsFor(site, finding);
  if (attempts.length === 0) return { ok: false, reason: reasonFor(finding) };
  const failing = failingPlaces(proof);
  let reason = reasonFor(finding);
  for (const attempt of attempts) {
    const { put, drop, refused } = attempt.plan();
    if (put.length === 0 && drop.length === 0) {
      reason = refused[0] ?? message('proof.comes-what-there-already');
      continue;
    }
    const after = withOverrides(site, { put, drop });
    yield attempt.label;
    const next = yield* proveSite(after, { memo: memo.fork(), at: { settings: proof.settings, unseen: [] } });
    if (isStill(next, finding)) {
      reason = message('proof.does-not-clear', {
        label: attempt.label,
        why: refused[0] ? 'refused' : 'none',
        refused: refused[0] ?? '',
      });
      continue;
    }
    const brought = [...failingPlaces(next)].filter((place) => !failing.has(place));
    if (brought.length === 0) return { ok: true, mend: { label: attempt.label, put, drop, after } };
    reason = message('proof.would-make-fail', { label: attempt.label, brought: brought.length });
  }
  return { ok: false, reason };
}

function reasonFor({ kind, mend }: ProofFinding): Message {
  if (mend) return message('proof.no-colour-palette-reaches');
  return message('proof.match-gives-part-its', { kind });
}

/** Places that fail: what cannot be read or seen apart from the rest, of which one may take the place of another. */
function failingPlaces({ findings }: Proof): Set<string> {
  return new Set(
    findings.flatMap(({ kind, level, places }) =>
      level === 'fails' ? places.map((place) => `${LEGIBLE.has(kind) ? 'legible' : ''}:${placeKey(place)}`) : [],
    ),
  );
}

const LEGIBLE: ReadonlySet<ProofKind> = new Set(['reads', 'seen']);

function placeKey({ pageId, element, pseudo, property, index, state, lighting }: ProofPlace): string {
  return [pageId, element, pseudo, property, index, state, lighting].join(':');
}

/** Whether a finding, or another of its group, is still there at one of its places. */
function isStill({ findings }: Proof, { kind, level, places }: ProofFinding): boolean {
  const own = new Set(places.map(placeKey));
  return findings.some(
    (other) => other.kind === kind && other.level === level && other.places.some((place) => own.has(placeKey(place))),
  );
}

function attemptsFor(site: SiteModel, finding: ProofFinding): Attempt[] {
  const { mend, places, needed } = finding;
  if (!mend) return [];
  const byValue = (label: Message, values: Readonly<Record<string, OverrideValue>>): Attempt => ({
    label,
    plan: () => laid(site, places, values),
  });
  const asAttempt = ({ label, places: on, values }: PictureMend): Attempt => ({
    label,
    plan: () => laid(site, on, values),
  });
  switch (mend.kind) {
    case 'recolour':
      return [
        ...passingColors(site, mend, needed ?? 0).map(({ value, label }) =>
          byValue(label, { [mend.property]: withBeside(value, mend.beside) }),
        ),
        ...(mend.property === 'color' ? groundMends(site, mend.ink, places, needed ?? 0).map(asAttempt) : []),
      ];
    case 'over-picture':
      return pictureMends(site, mend, places, needed ?? 0).map(asAttempt);
    case 'nearest':
      return nearestBrand(site, mend).map(({ value, label }) => ({
        label,
        plan: () => laidInPlace(site, places, value),
      }));
    case 'set':
      return [byValue(mend.label, mend.values)];
    case 'ring':
      return RING_ROLES.filter((role) => site.palette.roles.some((fill) => fill.role === role)).map((role) =>
        byValue(message('proof.ring-2-px', { role: inner(roleTold(role)) }), {
          'outline-style': { kind: 'literal', css: 'solid' },
          'outline-width': { kind: 'literal', css: '2px' },
          'outline-offset': { kind: 'literal', css: '2px' },
          'outline-color': { kind: 'role', role, shade: 0 },
        }),
      );
    case 'step':
      return [
        { label: message('proof.brand-step-from-rest'), plan: () => stepped(site, places) },
        // A line answers as well as a colour.
        { label: message('proof.underlined'), plan: () => underlined(site, places) },
      ];
    case 'drop':
      return [{ label: message('proof.taken-out'), plan: () => ({ put: [], drop: mend.overrides, refused: [] }) }];
    case 'rewrite':
      return [
        {
          label: message('proof.its-selector-written-anew'),
          plan: () =>
            planAll(
              site,
              site.overrides
                .filter(({ id }) => mend.overrides.includes(id))
                .map((override) => ({ ...wishOf(override, WIDTH), isAfresh: true })),
            ),
        },
      ];
  }
}

/** A colour with the one that stands second in the same value. */
function withBeside(value: PlainValue, beside: string | undefined): OverrideValue {
  if (beside === undefined) return value;
  return { kind: 'composite', css: '{0} {1}', colors: [value, { kind: 'literal', css: beside }] };
}

const RING_ROLES: readonly RoleName[] = ['ring', 'accent', 'second', 'ink', 'ground'];

/** Viewport width at which selectors are written, CSS px; they are held against every other. */
const WIDTH = 1280;

/** Values laid on all places, alike elements by one rule where all of them are meant. */
function laid(
  site: SiteModel,
  places: readonly ProofPlace[],
  values: Readonly<Record<string, OverrideValue>>,
): ReturnType<Attempt['plan']> {
  const tasks: Task[] = [];
  for (const [property, value] of Object.entries(values))
    for (const own of groupsOf(places, ({ pseudo, state }) => `${pseudo}|${state}`)) {
      const [{ pseudo, state }] = own;
      tasks.push({
        property,
        pseudo,
        state: leadingState(state),
        value,
        isKept: false,
        isOfAll: false,
        isEcho: false,
        spots: new Map(
          own.map(({ pageId, element }) => [`${pageId}:${element}`, { spot: { pageId, element }, places: 1 }]),
        ),
      });
    }
  return carried(site, tasks);
}

/** One colour laid on places that may be one of several in their value. */
function laidInPlace(site: SiteModel, places: readonly ProofPlace[], value: PlainValue): ReturnType<Attempt['plan']> {
  const proposal: MatchProposal = {
    strategy: 'blend',
    rows: [
      {
        found: {
          id: 'mend',
          hex: '',
          hexes: [],
          job: 'ground',
          isOnDark: false,
          places: places.map(foundPlace),
          states: [],
          area: 0,
          elements: places.length,
          homes: [],
          paints: message('plain', { text: '' }),
          isBrand: false,
          isExcepted: false,
          isWarning: false,
          atRest: null,
        },
        becomes: { kind: 'value', value },
        css: plainCssOfValue(value, site.palette),
        reason: message('plain', { text: '' }),
        isLocked: false,
        worst: null,
        inverted: null,
      },
    ],
    unmet: [],
  };
  return carried(site, tasksOf(site, proposal, WIDTH));
}

function foundPlace({ pageId, element, pseudo, property, index, state }: ProofPlace): FoundPlace {
  return {
    pageId,
    element,
    pseudo,
    property,
    index,
    state: leadingState(state),
    area: 0,
    isHidden: false,
    anchor: element,
    followsText: false,
  };
}

function carried(site: SiteModel, tasks: readonly Task[]): ReturnType<Attempt['plan']> {
  const { put, drop, refused } = toEnd(layTasks(site, tasks, WIDTH));
  return { put, drop, refused: refused.map(({ reason }) => reason) };
}

/** States filled from rest, one element of each kind for all alike. */
function stepped(site: SiteModel, places: readonly ProofPlace[]): ReturnType<Attempt['plan']> {
  return wished(
    site,
    places,
    (at, { pageId, element, pseudo, state }) =>
      proposeStates(at, { pageId, element, pseudo, reach: 'alike', width: WIDTH }, leadingState(state)).wishes,
  );
}

/** A line under all alike in the state. */
function underlined(site: SiteModel, places: readonly ProofPlace[]): ReturnType<Attempt['plan']> {
  return wished(site, places, (_, { pageId, element, pseudo, state }) =>
    Object.entries({ 'text-decoration-line': 'underline', 'text-decoration-thickness': '2px' }).map(
      ([property, css]): OverrideWish => ({
        pageId,
        element,
        pseudo,
        state: leadingState(state),
        property,
        value: { kind: 'literal', css },
        reach: 'alike',
        width: WIDTH,
      }),
    ),
  );
}

/** What is wished for one element of each kind, carried out one after the other. */
function wished(
  site: SiteModel,
  places: readonly ProofPlace[],
  wishesFor: (at: SiteModel, lead: ProofPlace) => readonly OverrideWish[],
): ReturnType<Attempt['plan']> {
  const kinds = groupsOf(places, ({ pageId, element, pseudo, state }) =>
    [alikeKey(elementOf(pageOf(site, pageId), element)), pseudo, state].join('|'),
  );
  let at = site;
  const put = new Map<string, Override>();
  const drop = new Set<string>();
  const refused: Message[] = [];
  for (const [lead] of kinds) {
    const plan = planAll(at, wishesFor(at, lead));
    for (const override of plan.put) put.set(override.id, override);
    for (const id of plan.drop) if (!put.delete(id)) drop.add(id);
    refused.push(...plan.refused);
    at = withOverrides(at, plan);
  }
  return { put: [...put.values()], drop: [...drop], refused };
}

function groupsOf(places: readonly ProofPlace[], keyOf: (place: ProofPlace) => string): ProofPlace[][] {
  const groups = new Map<string, ProofPlace[]>();
  for (const place of places) {
    const key = keyOf(place);
    const group = groups.get(key);
    if (group) group.push(place);
    else groups.set(key, [place]);
  }
  return [...groups.values()];
}
