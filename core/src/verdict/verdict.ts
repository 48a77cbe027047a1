import { inner, message, type Message } from '../message/message.js';
import { toEnd } from '../to-end.js';
import type { ElementNode } from '../dom/tree.js';
import { stateTold } from '../grid/rows.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import { isInRange } from '../veneer/media.js';
import type { Override } from '../veneer/override.js';
import { thumbFindings } from './thumb-on-track.js';
import { isForOtherEngines, isScrollbarPart } from '../veneer/scrollbars.js';
import { MOST_NEIGHBOURS, MOST_STEPS } from '../elsewhere/carriers.js';
import { effectsOf, type SilencedTeller, type VerdictProgress } from './effects.js';
import { MOST_SPOTS, type Finding } from './finding.js';
import { leftAloneFindings } from './left-alone.js';
import { readingFindings } from './reading-findings.js';
import { clearingOf, lookFinding, partsPassedOver } from './repairs.js';
import { settingsTold } from '../site/environments.js';
import { dressSite, elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { unreadPages } from '../site/unread.js';
import { outsideFindings } from './leads-outside.js';
import { notProved, unreadFindings } from './unread-findings.js';

/** Checks an override where it stands, at one go. */
export function judgeOverride(site: SiteModel, override: Override, width: number): Finding[] {
  return toEnd(judgeSteps(site, override, width));
}

/**
 * Checks an override where it stands, page by page. Everything it can touch, on every page, in every state that applies and
 * at every width that a breakpoint sets apart for it, is resolved with it and without it, and compared.
 * @param width viewport width the page is shown at, CSS px.
 */
export function* judgeSteps(site: SiteModel, override: Override, width: number): Generator<VerdictProgress, Finding[]> {
  const page = pageOf(site, override.pageId);
  const element = elementOf(page, override.element);
  if (isForOtherEngines(override, site.overrides)) return [OTHER_ENGINES];
  const without = dressSite(
    site,
    site.overrides.filter(({ id }) => id !== override.id),
    site.palette,
  );
  const effects = yield* effectsOf(site, without, override);
  const places = effects.reached + effects.missed.length;
  const { states, settings, unseen } = effects;
  const where = settingsTold(settings);
  const widths = [...new Set(settings.map(({ width }) => width))];
  const findings: Finding[] = [
    {
      standing: effects.missed.length === 0 ? 'holds' : 'fails',
      text: message('verdict.reaches', { reached: effects.reached, places }),
      basis: message('verdict.reaches-basis', { places, state: inner(stateTold(override.state)), where }),
      spots: effects.missed.slice(0, MOST_SPOTS),
    },
    {
      standing: effects.spill.length === 0 ? 'holds' : 'fails',
      text: message('verdict.spills', { count: effects.spill.length }),
      basis: message('verdict.spills-basis', {
        elements: effects.elements,
        states: states.length,
        where,
        widths: widths.length,
        compared: effects.compared,
        changes: effects.changed.length,
        changed: effects.changed,
      }),
      spots: effects.spill.slice(0, MOST_SPOTS),
    },
  ];
  const look = isInRange(width, override.widths) ? width : widths[0];
  const parent = override.parent == null ? null : elementOf(page, override.parent);
  const view = viewIn(page, element, override.state, look, parent);
  const style = view.style(element, override.pseudo);
  if (isScrollbarPart(override.pseudo))
    findings.push(...partsPassedOver(view.style(element), override, look), ...thumbFindings(site, override));
  findings.push(...readingFindings(site, override, effects.readings, look));
  findings.push(...leftAloneFindings(site, without, override, settings));
  const [longhand] = longhandsOfProperty(override.property);
  if (longhand === 'background-color') findings.push(...clearingOf(style, override, look));
  if (override.property === 'display' && style.resolved('display') === 'none') findings.push(hidingFinding(element));
  findings.push(...outsideFindings(override, site.palette));
  if (unseen.length > 0) findings.push(notLookedAt(unseen));
  const unread = unreadPages(site);
  findings.push(...unreadFindings(unread));
  findings.push(...effects.silenced.map(silencedFinding));
  findings.push(
    ...effects.looks
      .filter(({ state }) => !override.meant?.includes(state))
      .map((found) => lookFinding(site, override, found, effects.others, look)),
  );
  return unread.some(({ elements }) => elements > 0) ? findings.map(notProved) : findings;
}

/** What is said of an override that the engine styles are resolved for is kept from. */
const OTHER_ENGINES: Finding = {
  standing: 'holds',
  text: message('verdict.for-other-engines'),
  basis: message('verdict.for-other-engines-basis'),
};

/** What is said of a state of another element that no longer shows. */
function silencedFinding({ words, before, spots }: SilencedTeller): Finding {
  return {
    standing: 'look',
    text: message('verdict.hides-teller', { other: words }),
    basis: message('verdict.hides-teller-basis', {
      other: words,
      before,
      neighbours: MOST_NEIGHBOURS,
      steps: MOST_STEPS,
    }),
    spots: spots.slice(0, MOST_SPOTS),
  };
}

/** What the verdict does not cover. */
function notLookedAt(unseen: readonly Message[]): Finding {
  return {
    standing: 'look',
    text: message('verdict.unseen', { count: unseen.length }),
    basis: message('verdict.unseen-basis', { unseen }),
  };
}

/** What goes when an element is hidden. */
function hidingFinding(element: ElementNode): Finding {
  const controls: string[] = [];
  const walk = (node: ElementNode): void => {
    if (['a', 'button', 'input', 'select', 'textarea', 'form'].includes(node.localName)) controls.push(node.localName);
    node.children.forEach(walk);
  };
  walk(element);
  return {
    standing: controls.length > 0 ? 'fails' : 'look',
    text: message('verdict.hides-element', { controls: controls.length }),
    basis: message('verdict.hides-element-basis', { count: controls.length, controls: [...new Set(controls)] }),
  };
}
