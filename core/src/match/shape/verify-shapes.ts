import { message, type Message } from '../../message/message.js';
import { CENSUS_STATES, allInState } from '../../census/census-states.js';
import type { ElementNode } from '../../dom/tree.js';
import { longhandsOfProperty } from '../../properties/grouped.js';
import { withVeneer } from '../../resolve/page.js';
import { StyleShare } from '../../resolve/style-share.js';
import { StyleView } from '../../resolve/style-view.js';
import { showsText } from '../../resolve/text-figures.js';
import { shortName } from '../../selectors/describe-element.js';
import { settingsTold } from '../../site/environments.js';
import { passedOverOn } from '../../site/exceptions.js';
import { pageOf, type SiteModel } from '../../site/site-model.js';
import { inScope, type MatchScope } from '../scope.js';
import { Tally, type Told } from '../tally.js';
import type { ProofSettings } from '../proof-settings.js';
import { isSeen } from './painted-box.js';
import { rowIdOf } from './find-shapes.js';
import type { ProposedShape } from './propose-shapes.js';
import { resolvedAlone } from './resolved-alone.js';
import { shapesOf } from './shape-scan.js';

/** What resolving the site once more found of its shapes. */
export interface ShapeProof {
  /** Shapes that were to change, in every state and setting. */
  readonly looked: number;
  readonly missed: Told;
  readonly spilt: Told;
}

const LONGHANDS = [
  ...longhandsOfProperty('border-radius'),
  ...longhandsOfProperty('border-width'),
  'box-shadow',
  'font-family',
];

/**
 * Resolves every page with the overrides laid on, in each setting and state: each shape is as it was to become, states with one of
 * their own have kept it, and nothing else has another shape than before. A generator: it yields after each page and state.
 */
export function* verifyShapes(
  before: SiteModel,
  after: SiteModel,
  scope: MatchScope,
  shapes: readonly ProposedShape[],
  at: ProofSettings,
): Generator<string, ShapeProof> {
  const [missed, spilt] = [new Tally(), new Tally()];
  let looked = 0;
  if (shapes.every(({ value }) => value === null)) return { looked, missed: missed.told(), spilt: spilt.told() };
  const byId = new Map(shapes.map((shape) => [shape.found.id, shape]));
  const [{ width }] = at.settings;
  for (const pageId of after.pages.keys()) {
    const [then, now] = [pageOf(before, pageId), pageOf(after, pageId)];
    const isIn = scope.kind === 'page' && scope.pageId !== pageId ? () => false : inScope(after, scope, pageId);
    const wanted = wantedOn(before, pageId, width, isIn, byId);
    for (const [i, setting] of at.settings.entries()) {
      const shares = [new StyleShare(), new StyleShare()];
      const rest = new StyleView(then, { environment: setting, share: shares[0] });
      for (const state of CENSUS_STATES) {
        const states = allInState(now.document, state);
        const [was, is] = [then, now].map(
          (page, k) => new StyleView(page, { environment: setting, states, share: shares[k] }),
        );
        for (const element of now.document.elements) {
          if (!isSeen(element)) continue;
          const [old, shown, atRest] = [was, is, rest].map((view) => view.style(element));
          const own = wanted.get(element.number);
          for (const longhand of LONGHANDS) {
            if (longhand === 'font-family' && !showsText(shown)) continue;
            const [value, prior] = [shown, old].map((style) => style.resolved(longhand));
            const asked = own?.get(longhand);
            if (asked !== undefined) looked += 1;
            if (asked === undefined) {
              // A shadow whose colours are matched has kept its shape.
              if (value === prior || (longhand === 'box-shadow' && isIn(element))) continue;
              const where = whereOf(longhand, element, state, i === 0 ? null : settingsTold([setting]));
              if (isIn(element)) missed.add(message('match.is-not', { where, value, expected: prior }));
              else spilt.add(where);
              continue;
            }
            const isOwn = prior !== atRest.resolved(longhand);
            if (isOwn && longhand === 'box-shadow') continue;
            const expected = isOwn ? prior : asked;
            if (value === expected) continue;
            const where = whereOf(longhand, element, state, i === 0 ? null : settingsTold([setting]));
            missed.add(message('match.is-not', { where, value, expected }));
          }
        }
        yield now.path;
      }
    }
  }
  return { looked, missed: missed.told(), spilt: spilt.told() };
}

/** By element and longhand, what each is to come to. */
function wantedOn(
  site: SiteModel,
  pageId: number,
  width: number,
  isIn: (element: ElementNode) => boolean,
  byId: ReadonlyMap<string, ProposedShape>,
): ReadonlyMap<number, ReadonlyMap<string, string>> {
  const page = withVeneer(pageOf(site, pageId), '');
  const view = new StyleView(page, { environment: { width } });
  const excepted = passedOverOn(site.exceptions, page, {});
  const wanted = new Map<number, Map<string, string>>();
  for (const element of page.document.elements) {
    if (!isIn(element)) continue;
    for (const shape of shapesOf(view, element)) {
      const proposed = byId.get(rowIdOf(shape, excepted.has(element)));
      if (!proposed?.value) continue;
      const own = wanted.get(element.number) ?? new Map<string, string>();
      for (const property of shape.properties)
        for (const longhand of longhandsOfProperty(property)) own.set(longhand, resolvedAlone(property, proposed.css));
      wanted.set(element.number, own);
    }
  }
  return wanted;
}

function whereOf(longhand: string, element: ElementNode, state: string, at: Message | null): Message {
  return message('match.painted-in', {
    property: longhand,
    element: shortName(element),
    state,
    at: at ? 'some' : 'none',
    where: at ?? '',
  });
}
