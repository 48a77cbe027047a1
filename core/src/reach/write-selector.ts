import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { restContext } from '../selectors/match-context.js';
import { matchesSelector } from '../selectors/match-selector.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { escapeIdentifier, parseSelectorList } from '../selectors/parse-selector.js';
import type { ComplexSelector, Specificity } from '../selectors/selector.js';
import { addSpecificity } from '../selectors/specificity.js';
import type { OverrideState } from '../veneer/override.js';
import { kindSelector } from './alike.js';
import { lastingClasses } from './class-names.js';
import { selectorCandidates, type Candidate } from './selector-candidates.js';
import { clears, findThreshold, type Place, type Threshold, type ThresholdQuestion } from './threshold.js';

/** A selector that does the job, or why none does. */
export type WrittenSelector =
  | { readonly ok: true; readonly selector: string; readonly specificity: Specificity; readonly important: boolean; readonly leansOnPlace: boolean; readonly bar: Threshold }
  | { readonly ok: false; readonly reason: string };

export interface SelectorRequest extends Omit<ThresholdQuestion, 'places'> {
  /** The element the designer chose. */
  readonly lead: Place;
  /** Everything the rule is to match, the lead among it. */
  readonly targets: readonly Place[];
  /** Every page of the site: elsewhere the selector must match nothing. */
  readonly pages: readonly Page[];
  /** Whether the targets are all of one kind, so that the tag may stand alone. */
  readonly everywhere: boolean;
}

/**
 * Writes the least specific selector that matches exactly the targets over all pages and beats every present
 * winner on each of them from where the veneer is loaded. Names that last are preferred to positions.
 */
export function writeSelector(request: SelectorRequest): WrittenSelector {
  const { lead, targets, everywhere } = request;
  if (!everywhere) return writeFor(request, lead, targets, []);
  const written: Extract<WrittenSelector, { ok: true }>[] = [];
  for (const subject of kindSelector(lead.element)) {
    const [selector] = parseSelectorList(subject);
    const own = targets.filter((place) => matches(selector, place.page, place.element));
    if (own.length === 0) continue;
    const result = writeFor(request, own[0], own, [{ text: subject, specificity: selector.specificity, frailty: 0, distance: 0 }]);
    if (!result.ok) return result;
    written.push(result);
  }
  const [first] = written;
  if (!first) return { ok: false, reason: 'Nothing on the site is of this kind' };
  return { ...first, selector: written.map(({ selector }) => selector).join(', '), important: written.some(({ important }) => important) };
}

function writeFor(request: SelectorRequest, lead: Place, targets: readonly Place[], subjects: readonly Candidate[]): WrittenSelector {
  const bar = findThreshold({ ...request, places: targets });
  if (bar.impossible) return { ok: false, reason: bar.impossible };
  const suffix = stateSuffix(request, targets);
  const extra: Specificity = [0, suffix === '' ? 0 : 1, request.pseudo === '' ? 0 : 1];
  const wanted = new Set(targets.map(({ element }) => element));
  let weakest: Candidate | null = null;
  let triedLeavingOut = false;
  for (const candidate of selectorCandidates(lead.element, subjects, bar.setBy ?? '')) {
    if (candidate.frailty > 0 && !triedLeavingOut && targets.length > 0) {
      // Leaving others out by their own class is steadier than counting positions.
      triedLeavingOut = true;
      const spared = leaveOut(lead, wanted, request.pages, (specificity) => clears(addSpecificity(specificity, extra), bar));
      if (spared) return finish(spared, suffix, request, extra, bar);
    }
    if (!matchesExactly(candidate.text, wanted, request.pages)) continue;
    if (clears(addSpecificity(candidate.specificity, extra), bar)) return finish(candidate, suffix, request, extra, bar);
    // A steady selector made stronger is better than one that counts positions.
    if (weakest && weakest.frailty < candidate.frailty) break;
    weakest ??= candidate;
  }
  if (weakest) return finish(strengthen(weakest, extra, bar), suffix, request, extra, bar);
  if (targets.length > 1) return writeList(request, targets);
  return { ok: false, reason: 'No selector tells this element from the others' };
}

/** A class selector that takes in too much, less a class that only the others have: `.tab:not(.wide)`. */
function leaveOut(lead: Place, wanted: ReadonlySet<ElementNode>, pages: readonly Page[], isStrong: (specificity: Specificity) => boolean): Candidate | null {
  for (const subject of selectorCandidates(lead.element)) {
    if (subject.frailty > 0 || !subject.text.includes('.')) continue;
    const matched = matchedBy(subject.text, pages);
    const others = matched.filter((element) => !wanted.has(element));
    if (others.length === 0 || matched.length - others.length !== wanted.size) continue;
    const telling = lastingClasses(others[0].classes).find((name) => others.every((other) => other.classes.includes(name)) && [...wanted].every((element) => !element.classes.includes(name)));
    if (telling === undefined) continue;
    const candidate = { ...subject, text: `${subject.text}:not(.${escapeIdentifier(telling)})`, specificity: addSpecificity(subject.specificity, [0, 1, 0]) };
    if (isStrong(candidate.specificity)) return candidate;
  }
  return null;
}

/** Where no one selector gathers the targets: the least selector of each, as a list. */
function writeList(request: SelectorRequest, targets: readonly Place[]): WrittenSelector {
  const parts: Extract<WrittenSelector, { ok: true }>[] = [];
  for (const target of targets) {
    const result = writeFor(request, target, [target], []);
    if (!result.ok) return result;
    if (!parts.some(({ selector }) => selector === result.selector)) parts.push(result);
  }
  return { ...parts[0], selector: parts.map(({ selector }) => selector).join(', '), important: parts.some(({ important }) => important), leansOnPlace: parts.some(({ leansOnPlace }) => leansOnPlace) };
}

function finish(candidate: Candidate, suffix: string, request: SelectorRequest, extra: Specificity, bar: Threshold): WrittenSelector {
  const pseudo = request.pseudo === '' ? '' : `::${request.pseudo}`;
  return {
    ok: true,
    selector: `${candidate.text}${suffix}${pseudo}`,
    specificity: addSpecificity(candidate.specificity, extra),
    important: bar.important,
    leansOnPlace: candidate.frailty > 0,
    bar,
  };
}

/** Raises a selector over a bar without changing what it matches: its last class again, else a name that nothing has. */
function strengthen(candidate: Candidate, extra: Specificity, bar: Threshold): Candidate {
  const lastClass = /(\.[^\s.:[>#]+)[^\s>]*$/.exec(candidate.text)?.[1];
  let { text, specificity } = candidate;
  for (let round = 0; round < 12 && !clears(addSpecificity(specificity, extra), bar); round += 1) {
    const needsId = bar.specificity[0] > specificity[0] + extra[0];
    if (needsId) {
      text += ':not(#uv-none)';
      specificity = addSpecificity(specificity, [1, 0, 0]);
    } else {
      text += lastClass ?? ':not(.uv-none)';
      specificity = addSpecificity(specificity, [0, 1, 0]);
    }
  }
  return { ...candidate, text, specificity };
}

/**
 * The pseudo-class of a state. Focus follows the rule that decides now: where the page shows focus to the pointer
 * too, so must the override.
 */
function stateSuffix(request: SelectorRequest, targets: readonly Place[]): string {
  if (request.state !== 'focus') return STATE_SUFFIX[request.state];
  const bar = findThreshold({ ...request, places: targets.slice(0, 1), state: 'focus' });
  return bar.setBy && /:focus(?![-\w])/.test(bar.setBy) ? ':focus' : ':focus-visible';
}

const STATE_SUFFIX: Readonly<Record<OverrideState, string>> = { rest: '', visited: ':visited', hover: ':hover', focus: ':focus-visible', active: ':active' };

/** Whether a selector matches the given elements and no others on any page. */
export function matchesExactly(text: string, wanted: ReadonlySet<ElementNode>, pages: readonly Page[]): boolean {
  const [selector] = parseSelectorList(text);
  for (const element of wanted) {
    const page = pages.find((candidate) => candidate.document.elements[element.number] === element);
    if (!page || !matches(selector, page, element)) return false;
  }
  return matchedBy(text, pages).length === wanted.size;
}

function matchedBy(text: string, pages: readonly Page[]): ElementNode[] {
  const selectors = parseSelectorList(text);
  return pages.flatMap((page) => matchingElements(page, selectors));
}

function matches(selector: ComplexSelector, page: Page, element: ElementNode): boolean {
  return matchesSelector(selector, element, restContext(page.document));
}
