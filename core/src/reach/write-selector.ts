import { message } from '../message/message.js';
import { ancestorsOf, type ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import { restContext } from '../selectors/match-context.js';
import { matchesSelector } from '../selectors/match-selector.js';
import { matchingElements } from '../selectors/matching-elements.js';
import { escapeIdentifier, parseSelectorList } from '../selectors/parse-selector.js';
import { NO_SPECIFICITY, compareSpecificity, type ComplexSelector, type Specificity } from '../selectors/selector.js';
import { addSpecificity } from '../selectors/specificity.js';
import { currentMarkerFor, markOf } from '../selectors/current-marker.js';
import { relationOf } from '../elsewhere/carriers.js';
import { isSwitchState } from '../veneer/override.js';
import { isScrollbarPart } from '../veneer/scrollbars.js';
import { kindSelector } from '../selectors/alike.js';
import { isLastingId, lastingClasses } from '../selectors/class-names.js';
import {
  partSelectors,
  selectorCandidates,
  selectorsBeside,
  selectorsUnder,
  type Candidate,
} from './selector-candidates.js';
import { clears, findThreshold, raiseBar, type Place, type Threshold } from './threshold.js';
import type { SelectorRequest, WrittenSelector } from './selector-request.js';
import { matchesSwitched } from './matches-switched.js';
import { strengthenOne } from './strengthen.js';
import { stateSuffix } from './state-suffix.js';

/** Reason where nothing an element has sets it apart. */
export const NOT_TOLD = message('reach.no-selector-tells-this');

/**
 * Writes the least specific selector that matches exactly the targets over all pages and beats every present
 * winner on each of them from where the veneer is loaded. Names that last are preferred to positions.
 */
export function writeSelector(request: SelectorRequest): WrittenSelector {
  const { lead, targets, everywhere } = request;
  if (isSwitchState(request.state)) return writeFor(request, lead, targets, []);
  if (request.group) return writeGroup(request, lead, targets, request.group);
  if (!everywhere) return writeFor(request, lead, targets, []);
  const written: Extract<WrittenSelector, { ok: true }>[] = [];
  for (const subject of request.kinds ?? kindSelector(lead.element)) {
    const [selector] = parseSelectorList(subject);
    const own = targets.filter((place) => matches(selector, place.page, place.element));
    if (own.length === 0) continue;
    const result = writeFor(request, own[0], own, [
      { text: subject, specificity: selector.specificity, frailty: 0, distance: 0 },
    ]);
    if (!result.ok) return result;
    written.push(result);
  }
  const [first] = written;
  if (!first) return { ok: false, reason: message('reach.nothing-site-this-kind') };
  return {
    ...first,
    selector: written.map(({ selector }) => selector).join(', '),
    important: written.some(({ important }) => important),
  };
}

/** A group's own selector, made stronger where it has to be; where some of it are left out, its matches are told apart otherwise. */
function writeGroup(request: SelectorRequest, lead: Place, targets: readonly Place[], group: string): WrittenSelector {
  const bar = barOf(request, targets);
  if (bar.impossible) return { ok: false, reason: bar.impossible };
  const wanted = new Set(targets.map(({ element }) => element));
  const list = parseSelectorList(group);
  if (
    list.length !== 1 ||
    !matchesExactly(group, wanted, request.pages) ||
    stateCarrier(request, lead) !== lead.element
  )
    return writeFor({ ...request, group: null }, lead, targets, []);
  const suffix = stateSuffix(request, lead, targets);
  const extra: Specificity = addSpecificity(
    [0, suffix === '' ? 0 : 1, request.pseudo === '' ? 0 : 1],
    [0, request.pseudoState ? 1 : 0, 0],
  );
  const own: Candidate = { text: group, specificity: list[0].specificity, frailty: 0, distance: 0 };
  // What all of them stand in says more than a name said twice.
  const under = sharedAncestors(targets).map((name): Candidate => ({
    ...own,
    text: `${name} ${group}`,
    specificity: addSpecificity(own.specificity, parseSelectorList(name)[0].specificity),
  }));
  const isStrong = ({ specificity }: Candidate): boolean => clears(addSpecificity(specificity, extra), bar);
  const found = [own, ...under.sort((a, b) => compareSpecificity(a.specificity, b.specificity))].find(
    (candidate) => isStrong(candidate) && (candidate === own || matchesExactly(candidate.text, wanted, request.pages)),
  );
  return finish(found ?? strengthenOne([own], extra, bar), suffix, request, extra, bar);
}

/** Ids, and classes of what is not the body, that an ancestor of every target has. */
function sharedAncestors(targets: readonly Place[]): string[] {
  const namesOf = ({ element }: Place): Set<string> =>
    new Set(
      [...ancestorsOf(element)].flatMap((node) => [
        ...(node.id && isLastingId(node.id) ? [`#${escapeIdentifier(node.id)}`] : []),
        ...(node.localName === 'body' ? [] : lastingClasses(node.classes).map((name) => `.${escapeIdentifier(name)}`)),
      ]),
    );
  const [first, ...others] = targets.map(namesOf);
  return first ? [...first].filter((name) => others.every((names) => names.has(name))).slice(0, 6) : [];
}

function writeFor(
  request: SelectorRequest,
  lead: Place,
  targets: readonly Place[],
  subjects: readonly Candidate[],
): WrittenSelector {
  const bar = barOf(request, targets);
  if (bar.impossible) return { ok: false, reason: bar.impossible };
  const host = lead.element.root.host;
  const carrier = stateCarrier(request, lead);
  const suffix = stateSuffix(request, lead, targets);
  const extra: Specificity = addSpecificity(
    addSpecificity(suffixSpecificity(suffix), [0, 0, request.pseudo === '' ? 0 : 1]),
    [0, request.pseudoState ? 1 : 0, 0],
  );
  const wanted = new Set(targets.map(({ element }) => element));
  if (host) return writePart(request, lead, host, suffix, extra, bar);
  const { state } = request;
  const isPossible = ({ text, tail = '' }: Candidate): boolean =>
    !isSwitchState(state) || matchesSwitched(text + suffix + tail, lead, state);
  const steady: Candidate[] = [];
  let triedLeavingOut = carrier !== lead.element;
  for (const candidate of candidatesFor(request, lead, carrier, subjects, bar)) {
    // A steady selector made stronger is better than one that counts positions.
    if (steady.length > 0 && steady[0].frailty < candidate.frailty) break;
    if (candidate.frailty > 0 && !triedLeavingOut && targets.length > 0) {
      // Leaving others out by their own class is steadier than counting positions.
      triedLeavingOut = true;
      const spared = leaveOut(lead, wanted, request.pages, (specificity) =>
        clears(addSpecificity(specificity, extra), bar),
      );
      if (spared && isPossible(spared)) return finish(spared, suffix, request, extra, bar);
    }
    if (!matchesExactly(candidate.text + (candidate.tail ?? ''), wanted, request.pages)) continue;
    if (!isPossible(candidate)) continue;
    if (clears(addSpecificity(candidate.specificity, extra), bar))
      return finish(
        withoutIdleTag(candidate, suffix, request.pages, (specificity) =>
          clears(addSpecificity(specificity, extra), bar),
        ),
        suffix,
        request,
        extra,
        bar,
      );
    steady.push(candidate);
  }
  if (steady.length > 0) return finish(strengthenOne(steady, extra, bar), suffix, request, extra, bar);
  if (targets.length > 1) return writeList(request, targets);
  return { ok: false, reason: NOT_TOLD };
}

/** Selectors of the lead, written so that the state of its carrier can be asked about. */
function candidatesFor(
  request: SelectorRequest,
  lead: Place,
  carrier: ElementNode,
  subjects: readonly Candidate[],
  bar: Threshold,
): Candidate[] {
  const { element, parent } = lead;
  const relation = isSwitchState(request.state) && parent ? relationOf(element, parent) : null;
  if (relation?.relation === 'before') return selectorsBeside(element, relation.element, relation.at, subjects);
  return carrier === element
    ? selectorCandidates(element, subjects, bar.setBy?.rule ?? '')
    : selectorsUnder(element, carrier, subjects);
}

function suffixSpecificity(suffix: string): Specificity {
  return suffix === '' ? NO_SPECIFICITY : parseSelectorList(`*${suffix}`)[0].specificity;
}

/** What a rule has to clear. The standard properties that stand in for scrollbar parts go by the same selector less the part, so that must clear theirs too. */
function barOf(request: SelectorRequest, targets: readonly Place[]): Threshold {
  const bar = findThreshold({ ...request, places: targets });
  if (!isScrollbarPart(request.pseudo)) return bar;
  const standard = findThreshold({
    ...request,
    places: targets,
    pseudo: '',
    pseudoState: undefined,
    longhands: ['scrollbar-color'],
  });
  return raiseBar(bar, { ...standard, specificity: addSpecificity(standard.specificity, [0, 0, 1]), impossible: null });
}

/** `li.is-current a` as `.is-current a`, where the mark alone says as much. */
function withoutIdleTag(
  candidate: Candidate,
  suffix: string,
  pages: readonly Page[],
  isStrong: (specificity: Specificity) => boolean,
): Candidate {
  const bare = candidate.text.replace(/(^|\s)[a-z][\w-]*$/, '$1');
  if (candidate.tail === undefined || !/^[.[]/.test(suffix) || bare === candidate.text) return candidate;
  const specificity = addSpecificity(candidate.specificity, [0, 0, -1]);
  const found = (text: string): string =>
    matchedBy(`${text}${suffix}${candidate.tail ?? ''}`, pages)
      .map(({ number }) => number)
      .join();
  return isStrong(specificity) && found(bare) === found(candidate.text)
    ? { ...candidate, text: bare, specificity }
    : candidate;
}

/** The element whose state is meant: a parent for the states of a parent, the list item where that is marked as current. */
function stateCarrier({ state }: SelectorRequest, lead: Place): ElementNode {
  if (isSwitchState(state) && lead.parent) {
    const relation = relationOf(lead.element, lead.parent);
    return relation?.relation === 'inside' ? relation.at : lead.parent;
  }
  if (state === 'parent-hover' || state === 'parent-invalid') return lead.parent ?? lead.element;
  if (state === 'current' && currentMarkerFor(lead.element)?.on === 'parent')
    return lead.element.parent ?? lead.element;
  return lead.element;
}

/** A part behind a shadow root, through the names its maker gives out. */
function writePart(
  request: SelectorRequest,
  lead: Place,
  host: ElementNode,
  suffix: string,
  extra: Specificity,
  bar: Threshold,
): WrittenSelector {
  const hosts = new Set(request.targets.flatMap(({ element }) => element.root.host ?? []));
  const exact = partSelectors(lead.element, host).filter((candidate) =>
    matchesExactly(candidate.text, hosts, request.pages),
  );
  if (exact.length === 0) return { ok: false, reason: message('reach.lies-behind-shadow-root') };
  const [{ tail = '', frailty }] = exact;
  // What is raised is the host's selector; the part's name follows it.
  const ofHost = exact
    .filter((candidate) => candidate.tail === tail && candidate.frailty === frailty)
    .map((candidate): Candidate => ({ ...candidate, tail: undefined }));
  // Rules of the page beat those inside the shadow tree, whatever their specificity; only the page's own count.
  const found =
    ofHost.find(({ specificity }) => clears(addSpecificity(specificity, extra), bar)) ??
    strengthenOne(ofHost, extra, bar);
  const pseudo = request.pseudo === '' ? '' : `::${request.pseudo}`;
  return {
    ok: true,
    selector: `${found.text}${tail}${suffix}${pseudo}`,
    specificity: addSpecificity(found.specificity, extra),
    important: bar.important,
    leansOnPlace: frailty > 0,
    bar,
  };
}

/** A class selector that takes in too much, less a class that only the others have: `.tab:not(.wide)`. */
function leaveOut(
  lead: Place,
  wanted: ReadonlySet<ElementNode>,
  pages: readonly Page[],
  isStrong: (specificity: Specificity) => boolean,
): Candidate | null {
  for (const subject of selectorCandidates(lead.element)) {
    if (subject.frailty >= 1 || !/[.# ]/.test(subject.text)) continue;
    const matched = matchedBy(subject.text, pages);
    const others = matched.filter((element) => !wanted.has(element));
    if (others.length === 0 || matched.length - others.length !== wanted.size) continue;
    const telling = tellingName(others, wanted);
    if (telling === null) continue;
    const candidate = {
      ...subject,
      text: `${subject.text}:not(${telling})`,
      specificity: addSpecificity(subject.specificity, [0, 1, 0]),
    };
    if (isStrong(candidate.specificity)) return candidate;
  }
  return null;
}

/** A class, or the mark of the current one, that all others have and none of the wanted. */
function tellingName(others: readonly ElementNode[], wanted: ReadonlySet<ElementNode>): string | null {
  const telling = lastingClasses(others[0].classes).find(
    (name) =>
      others.every((other) => other.classes.includes(name)) &&
      [...wanted].every((element) => !element.classes.includes(name)),
  );
  if (telling !== undefined) return `.${escapeIdentifier(telling)}`;
  const mark = markOf(others[0])?.selector;
  return mark !== undefined &&
    others.every((other) => markOf(other)?.selector === mark) &&
    [...wanted].every((element) => markOf(element) === null)
    ? mark
    : null;
}

/** Where no one selector gathers the targets: the least selector of each, as a list. */
function writeList(request: SelectorRequest, targets: readonly Place[]): WrittenSelector {
  const parts: Extract<WrittenSelector, { ok: true }>[] = [];
  for (const target of targets) {
    const result = writeFor(request, target, [target], []);
    if (!result.ok) return result;
    if (!parts.some(({ selector }) => selector === result.selector)) parts.push(result);
  }
  return {
    ...parts[0],
    selector: parts.map(({ selector }) => selector).join(', '),
    important: parts.some(({ important }) => important),
    leansOnPlace: parts.some(({ leansOnPlace }) => leansOnPlace),
  };
}

function finish(
  candidate: Candidate,
  suffix: string,
  request: SelectorRequest,
  extra: Specificity,
  bar: Threshold,
): WrittenSelector {
  const pseudo =
    request.pseudo === '' ? '' : `::${request.pseudo}${request.pseudoState ? `:${request.pseudoState}` : ''}`;
  const { tail = '' } = candidate;
  const after = `${suffix}${tail}${pseudo}`;
  return {
    ok: true,
    // A universal selector is written only where nothing else is.
    selector: `${candidate.text}${after}`.replace(/^\*(?=[:.[#])/, ''),
    specificity: addSpecificity(candidate.specificity, extra),
    important: bar.important,
    leansOnPlace: candidate.frailty > 0,
    bar,
  };
}

/** Whether a selector matches the given elements and no others on any page. */
export function matchesExactly(text: string, wanted: ReadonlySet<ElementNode>, pages: readonly Page[]): boolean {
  const selectors = parseSelectorList(text);
  let found = 0;
  for (const page of pages) {
    for (const element of matchingElements(page, selectors)) {
      if (!wanted.has(element)) return false;
      found += 1;
    }
  }
  return found === wanted.size;
}

function matchedBy(text: string, pages: readonly Page[]): ElementNode[] {
  const selectors = parseSelectorList(text);
  return pages.flatMap((page) => matchingElements(page, selectors));
}

function matches(selector: ComplexSelector, page: Page, element: ElementNode): boolean {
  return matchesSelector(selector, element, restContext(page.document));
}
