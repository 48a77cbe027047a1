import { toEnd } from '../to-end.js';
import type { ElementNode } from '../dom/tree.js';
import { STATE_WORDS } from '../grid/rows.js';
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
import { settingWords } from '../site/environments.js';
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
  const where = settingWords(settings);
  const widths = [...new Set(settings.map(({ width }) => width))];
  const over = `in ${states.length} ${states.length === 1 ? 'state' : 'states'}, ${where}${widths.length === 1 ? ', the widths at which no rule of the site makes a difference to it left out' : ''}`;
  const findings: Finding[] = [
    {
      standing: effects.missed.length === 0 ? 'holds' : 'fails',
      text: `reaches ${effects.reached} of ${places}`,
      basis: `${places} elements on all pages, in state ${STATE_WORDS[override.state].toLowerCase()}, ${where}: the override decides, and its value shows.`,
      spots: effects.missed.slice(0, MOST_SPOTS),
    },
    {
      standing: effects.spill.length === 0 ? 'holds' : 'fails',
      text: effects.spill.length === 0 ? 'no spill' : `spills to ${effects.spill.length}`,
      basis: `${effects.elements} elements that the rule can touch, ${over}: ${effects.compared} comparisons with and without the override. Nothing else can change.${effects.spillWords.length === 0 ? '' : ` What changes: ${effects.spillWords.join(', ')}.`}`,
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
  text: 'for engines without scrollbar parts',
  basis:
    'The parts of this scrollbar are overridden too: engines that have them take those, the others this. It is guarded by @supports, so its effect is not reckoned here.',
};

/** What is said of a state of another element that no longer shows. */
function silencedFinding({ words, before, spots }: SilencedTeller): Finding {
  return {
    standing: 'look',
    text: `hides that ${words}`,
    basis: `Where ${words}, the page showed ${before}; the rule for rest is stronger, so it looks as at rest. Found on one element of each kind, at one width, among its ${MOST_NEIGHBOURS} nearest neighbours on ${MOST_STEPS} steps up: chosen there, that state is a column of the grid.`,
    spots: spots.slice(0, MOST_SPOTS),
  };
}

/** What the verdict does not cover. */
function notLookedAt(unseen: readonly string[]): Finding {
  return {
    standing: 'look',
    text: `${unseen.length === 1 ? 'one condition' : `${unseen.length} conditions`} not looked at`,
    basis: `Rules that have a say hang on ${unseen.join(', ')}. What they do then is not in this verdict.`,
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
    text: controls.length > 0 ? `hides ${controls.length} that people use` : 'hidden from everyone',
    basis: `display: none also takes it from screen readers and the keyboard${controls.length > 0 ? `; in it: ${[...new Set(controls)].join(', ')}` : ''}.`,
  };
}
