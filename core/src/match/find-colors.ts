import { allInState, CENSUS_STATES, type CensusState } from '../census/census-states.js';
import { looksAlike, type Painting } from '../census/paintings.js';
import { visibleFills } from '../census/visible-fills.js';
import { compositeOver, contrastRatio, relativeLuminance } from '../color/contrast.js';
import { SAME_TO_THE_EYE, deltaE2000, deltaE2000OfLab, labOf } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { isBrandColor } from '../palette/brand-color.js';
import { isHidden } from '../parts/propose-openers.js';
import { sourceOf } from '../resolve/explain.js';
import { feedingProperties } from '../resolve/feeding-properties.js';
import { boxOf, rectsOf, type PageLayout } from '../resolve/page-layout.js';
import { withVeneer, type Page } from '../resolve/page.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { wantedRatio } from '../resolve/text-figures.js';
import { isExcepted } from '../site/exceptions.js';
import { pageOf, type SiteModel } from '../site/site-model.js';
import { unreadPages } from '../site/unread.js';
import { WHITE, type Color } from '../values/color.js';
import { colorOfCss } from '../veneer/palette.js';
import { mainActions } from './actions.js';
import type { FoundColor, FoundColors, FoundPlace, Home, Meeting } from './found-color.js';
import { FILL_JOBS, JOBS, READ_JOBS, jobOf, type Job } from './job.js';
import { matchPaintings } from './paintings.js';
import { isWarningRed, paintsWords, saysWarning } from './place-words.js';
import { inScope, pagesOf, type MatchScope } from './scope.js';

export interface FindProgress {
  readonly page: string;
  /** 0–1. */
  readonly share: number;
}

/** Contrast asked of edges of controls, rings and icons. Source: WCAG 2.2, 1.4.11. */
const SEEN = 3;
/** Share of its lines that the glyphs of a text ink (common practice). */
const INK_SHARE = 0.25;
const POINTS = 40_000;

/**
 * Everything a scope paints as it arrived, without the veneer, in every state of the census: rows by colour and job, and which of
 * them meet. A generator: it yields its progress, so that a caller can show it and stop.
 * @param width viewport width, CSS px.
 */
export function* findColors(site: SiteModel, scope: MatchScope, width: number): Generator<FindProgress, FoundColors> {
  const gathered = new Gathering(site);
  const pageIds = pagesOf(site, scope);
  let [measuredPages, pages] = [0, 0];
  let done = 0;
  for (const pageId of pageIds) {
    const dressed = pageOf(site, pageId);
    const page = withVeneer(dressed, '');
    const layout = dressed.layouts?.get(width) ?? null;
    const isIn = inScope(site, scope, pageId);
    const scan = new PageScan(site, pageId, page, dressed, width, layout, isIn);
    if (scan.elements.length > 0) {
      pages += 1;
      if (layout) measuredPages += 1;
      scan.rest(gathered);
      yield { page: page.path, share: (done + 0.3) / pageIds.length };
      for (const state of CENSUS_STATES) if (state !== 'rest') scan.state(gathered, state);
    }
    yield { page: page.path, share: (done += 1) / pageIds.length };
  }
  return {
    ...gathered.result(),
    measuredPages,
    pages,
    unread: unreadPages(site),
    mains: mainActions(site, scope, width),
  };
}

/** Runs a generator to its end. */
export function foundColors(site: SiteModel, scope: MatchScope, width: number): FoundColors {
  const steps = findColors(site, scope, width);
  for (;;) {
    const step = steps.next();
    if (step.done) return step.value;
  }
}

interface RawPlace extends FoundPlace {
  readonly node: ElementNode;
  readonly page: Page;
}

/** All places of one colour in one job, as they are gathered. */
interface Entry {
  readonly key: string;
  readonly hex: string;
  readonly color: Color;
  readonly job: Job;
  readonly isOnDark: boolean;
  readonly places: RawPlace[];
  readonly homes: Map<string, { readonly home: Omit<Home, 'places'>; places: number }>;
  readonly atRest: Map<string, number>;
  warnings: number;
  excepted: number;
}

interface RawMeeting {
  readonly kind: Meeting['kind'];
  readonly ink: string;
  readonly ground: string | null;
  readonly outside: string;
  readonly wanted: number;
  readonly before: number;
  places: number;
}

/** One page looked through, state by state. */
class PageScan {
  readonly elements: readonly ElementNode[];
  readonly #share = new StyleShare();
  readonly #rest: StyleView;
  readonly #dressed: StyleView;
  readonly #restPaintings = new Map<ElementNode, readonly Painting[]>();
  readonly #visible: ReadonlyMap<number, number> | null;
  /** Elements that show text which comes down from elsewhere, by the element that decides it. */
  readonly #deciders = new Map<ElementNode, ElementNode[]>();
  readonly #inside = new Map<string, boolean>();
  readonly #viewed = new WeakMap<StyleView, Viewed>();

  constructor(
    readonly site: SiteModel,
    readonly pageId: number,
    readonly page: Page,
    dressed: Page,
    width: number,
    readonly layout: PageLayout | null,
    readonly isIn: (element: ElementNode) => boolean,
  ) {
    this.#rest = new StyleView(page, { environment: { width }, share: this.#share });
    this.#dressed = new StyleView(dressed, { environment: { width } });
    this.elements = page.document.elements.filter(isIn);
    this.#visible =
      layout && this.elements.length > 0
        ? visibleFills(this.#rest, layout, (number) => this.#opacityOf(number), POINTS)
        : null;
  }

  rest(into: Gathering): void {
    for (const element of this.page.document.elements) {
      const paintings = this.#paintingsIn(this.#rest, element);
      this.#restPaintings.set(element, paintings);
      for (const { property, style } of paintings) {
        if (property !== 'color') continue;
        const followers = this.#deciders.get(style.element);
        if (followers) followers.push(element);
        else this.#deciders.set(style.element, [element]);
      }
    }
    for (const element of this.elements) this.#take(into, element, this.#rest, 'rest');
  }

  state(into: Gathering, state: CensusState): void {
    const states = allInState(this.page.document, state);
    const view = new StyleView(this.page, { environment: this.#rest.environment, states, share: this.#share });
    const changed = new Set(
      state === 'visited'
        ? states.keys()
        : this.page.document.elements.filter((element) => !looksAlike(view, this.#rest, element)),
    );
    if (changed.size === 0) return;
    const inside = new Map<ElementNode, boolean>();
    const isTouched = (element: ElementNode): boolean => {
      let is = inside.get(element);
      if (is === undefined)
        inside.set(
          element,
          (is = changed.has(element) || (element.flatParent !== null && isTouched(element.flatParent))),
        );
      return is;
    };
    for (const element of this.elements) if (isTouched(element)) this.#take(into, element, view, state);
  }

  #take(into: Gathering, element: ElementNode, view: StyleView, state: CensusState): void {
    const restPaintings = this.#restPaintings.get(element) ?? [];
    for (const painting of state === 'rest' ? restPaintings : this.#paintingsIn(view, element)) {
      const key = this.#keyOf(view, element, painting);
      const before =
        state === 'rest'
          ? null
          : (restPaintings.find(
              (other) =>
                other.pseudo === painting.pseudo &&
                other.property === painting.property &&
                other.index === painting.index,
            ) ?? null);
      const keyBefore = before && this.#keyOf(this.#rest, element, before);
      // A text that stays as it is over a ground that turns dark is another row there.
      const isNew = keyBefore?.key !== key.key;
      if (isNew)
        into.add(
          key,
          painting,
          {
            pageId: this.pageId,
            element: element.number,
            pseudo: painting.pseudo,
            property: painting.property,
            index: painting.index,
            state,
            area: state === 'rest' ? this.#areaOf(element, painting) : 0,
            isHidden: this.layout ? boxOf(this.layout, element.number) === null : isHidden(this.#rest, element),
            anchor: this.#anchorOf(element, painting),
            followsText: followsText(painting),
            node: element,
            page: this.page,
          },
          keyBefore,
        );
      if (state !== 'disabled') this.#meet(into, element, view, painting, key.key);
    }
  }

  /** Where an override for inherited text is laid: as far out as its scope and its home let it, and only where nothing else would follow. */
  #anchorOf(element: ElementNode, { pseudo, property, style }: Painting): number {
    const decider = style.element;
    if (pseudo !== '' || property !== 'color' || decider === element) return element.number;
    let anchor = element;
    for (let node = element; ;) {
      if (this.isIn(node)) anchor = node;
      const parent = node.flatParent;
      if (node === decider || !parent || !this.isIn(parent)) break;
      node = parent;
    }
    return this.#isFollowedInside(decider, anchor) ? anchor.number : element.number;
  }

  /** Whether all that inherits a decider's text colour through an element is in the scope. */
  #isFollowedInside(decider: ElementNode, anchor: ElementNode): boolean {
    const id = `${decider.number}:${anchor.number}`;
    let is = this.#inside.get(id);
    if (is === undefined) {
      is = (this.#deciders.get(decider) ?? []).every((other) => this.isIn(other) || !lineageOf(other).includes(anchor));
      this.#inside.set(id, is);
    }
    return is;
  }

  #opacityOf(number: number): number {
    const element = this.page.document.elements[number];
    const style = this.#rest.style(element);
    if (/url\(|gradient\(/.test(style.resolved('background-image')) || /^(?:img|iframe|video)$/.test(element.localName))
      return 1;
    return style.color('background-color')?.alpha ?? 0;
  }

  #areaOf(element: ElementNode, { use, pseudo, property }: Painting): number {
    if (!this.layout || !this.#visible) return 0;
    const box = boxOf(this.layout, element.number);
    if (!box || pseudo !== '') return 0;
    const seen = this.#visible.get(element.number) ?? 0;
    switch (use) {
      case 'fill':
        return /gradient\(|url\(/.test(this.#rest.style(element).resolved('background-image')) ? 0 : seen;
      case 'gradient':
        return seen / 2;
      case 'text':
        return property === 'color'
          ? INK_SHARE *
              rectsOf(this.layout.lines.get(element.number)).reduce((sum, line) => sum + line.width * line.height, 0)
          : 0;
      case 'edge':
        return (
          Number.parseFloat(this.#rest.style(element).resolved(property.replace('color', 'width'))) *
          (/top|bottom/.test(property) ? box.width : box.height)
        );
      case 'icon':
        return box.width * box.height;
      default:
        return 0;
    }
  }

  /** What a painting is read, seen or told apart on. */
  #meet(into: Gathering, element: ElementNode, view: StyleView, painting: Painting, ink: string): void {
    const job = jobOf(view, element, painting);
    const kind = READ_JOBS.has(job)
      ? 'read'
      : job === 'frame' || job === 'ring' || job === 'icon'
        ? 'seen'
        : FILL_JOBS.has(job) && painting.use === 'fill'
          ? 'apart'
          : null;
    if (kind === null || (painting.color.alpha ?? 0) < 0.2) return;
    const isOnItself = kind === 'read' || painting.pseudo !== '';
    for (const { key, color } of this.#groundsUnder(view, isOnItself ? element : element.flatParent)) {
      const shown = compositeOver(painting.color, color);
      const before = kind === 'apart' ? deltaE2000(shown, color) : contrastRatio(shown, color);
      const wanted =
        kind === 'apart' ? SAME_TO_THE_EYE : kind === 'seen' ? SEEN : wantedRatio(view.style(element, painting.pseudo));
      into.meet({ kind, ink, ground: key, outside: key === null ? hexOf(color) : '', wanted, before });
    }
  }

  /** What is read on dark and what is read on light are rows apart: one colour can hardly serve both. */
  #keyOf(view: StyleView, element: ElementNode, painting: Painting): EntryKey {
    const job = jobOf(view, element, painting);
    const hex = hexOf(painting.color);
    if (!READ_JOBS.has(job) && job !== 'icon') return { key: `${job} ${hex}`, job, hex, isOnDark: false };
    const [under] = this.#groundsUnder(view, element);
    const isOnDark = relativeLuminance(under.color) < DARK;
    return { key: `${job} ${hex}${isOnDark ? ' on dark' : ''}`, job, hex, isOnDark };
  }

  /** What is known of a view already: texts in one box ask for the same grounds. */
  #viewedIn(view: StyleView): Viewed {
    let viewed = this.#viewed.get(view);
    if (!viewed) this.#viewed.set(view, (viewed = { paintings: new Map(), grounds: new Map() }));
    return viewed;
  }

  #paintingsIn(view: StyleView, element: ElementNode): readonly Painting[] {
    const { paintings } = this.#viewedIn(view);
    let found = paintings.get(element);
    if (!found) paintings.set(element, (found = matchPaintings(view, element)));
    return found;
  }

  /** Fills that lie under an element, the nearest that hides what is under it: a row's, or a colour outside the scope as it is now. */
  #groundsUnder(view: StyleView, from: ElementNode | null): readonly GroundUnder[] {
    if (!from) return BARE;
    const { grounds } = this.#viewedIn(view);
    let found = grounds.get(from);
    if (!found) grounds.set(from, (found = this.#ownGrounds(view, from) ?? this.#groundsUnder(view, from.flatParent)));
    return found;
  }

  /** Fills an element lays under what is in it; `null` where it lets through what lies under it. */
  #ownGrounds(view: StyleView, element: ElementNode): readonly GroundUnder[] | null {
    const isIn = this.isIn(element);
    const around = isIn ? view : this.#dressed;
    const fills = this.#paintingsIn(around, element).filter(
      ({ use, pseudo, color }) =>
        pseudo === '' && (use === 'fill' || use === 'gradient') && (color.alpha ?? 0) > MOSTLY_OPAQUE,
    );
    const stops = fills.filter(({ use }) => use === 'gradient');
    const telling = stops.length > 0 ? stops : fills;
    if (telling.length === 0) return null;
    return telling.map((painting) => ({
      key: isIn ? this.#keyOf(around, element, painting).key : null,
      color: { ...painting.color, alpha: 1 },
    }));
  }
}

function followsText({ property, pseudo, decided, style }: Painting): boolean {
  const decidedBy = decided?.entry.declaration.name ?? 'color';
  return (
    (property !== 'color' && decidedBy === 'color' && property !== 'background-color') ||
    (property === 'color' && pseudo !== '' && style.pseudo === '')
  );
}

/** Alpha from which a fill is taken for what lies under a text. */
const MOSTLY_OPAQUE = 0.5;

/** Luminance under which white is read better than black. Source: WCAG 2.2, contrast ratio, solved for the two being equal. */
const DARK = 0.179;

interface EntryKey {
  readonly isOnDark: boolean;
  readonly key: string;
  readonly job: Job;
  readonly hex: string;
}

/** A fill under something: a row's, or one outside the scope. */
interface GroundUnder {
  readonly key: string | null;
  readonly color: Color;
}

/** The canvas, where nothing paints. */
const BARE: readonly GroundUnder[] = [{ key: null, color: WHITE }];

interface Viewed {
  readonly paintings: Map<ElementNode, readonly Painting[]>;
  readonly grounds: Map<ElementNode, readonly GroundUnder[]>;
}

/** Gathers places over pages and states, then joins near-duplicates. */
class Gathering {
  readonly #entries = new Map<string, Entry>();
  readonly #meetings = new Map<string, RawMeeting>();

  constructor(readonly site: SiteModel) {}

  add({ key, job, hex, isOnDark }: EntryKey, painting: Painting, place: RawPlace, atRest: EntryKey | null): void {
    let entry = this.#entries.get(key);
    if (!entry)
      this.#entries.set(
        key,
        (entry = {
          key,
          hex,
          color: painting.color,
          job,
          isOnDark,
          places: [],
          homes: new Map(),
          atRest: new Map(),
          warnings: 0,
          excepted: 0,
        }),
      );
    entry.places.push(place);
    const home = homeOf(painting);
    const id = JSON.stringify(home);
    const known = entry.homes.get(id);
    if (known) known.places += 1;
    else entry.homes.set(id, { home, places: 1 });
    if (atRest) entry.atRest.set(atRest.key, (entry.atRest.get(atRest.key) ?? 0) + 1);
    if (saysWarning(place.node, place.state) || isWarningRed(job, painting.color)) entry.warnings += 1;
    if (isExcepted(this.site.exceptions, place.page.document, place.node, painting.color)) entry.excepted += 1;
  }

  meet(meeting: Omit<RawMeeting, 'places'>): void {
    if (meeting.ink === meeting.ground) return;
    const id = `${meeting.kind}|${meeting.ink}|${meeting.ground ?? meeting.outside}|${meeting.wanted}`;
    const known = this.#meetings.get(id);
    if (known) known.places += 1;
    else this.#meetings.set(id, { ...meeting, places: 1 });
  }

  result(): Pick<FoundColors, 'rows' | 'meetings'> {
    const leaders = this.#leaders();
    const groups = new Map<string, Entry[]>();
    for (const [key, leader] of leaders) {
      const entry = this.#entries.get(key);
      if (entry) groups.set(leader, [...(groups.get(leader) ?? []), entry]);
    }
    const rows = [...groups]
      .map(([leader, entries]) => this.#row(leader, entries, leaders))
      .sort(
        (a, b) =>
          b.area - a.area ||
          Number(a.atRest !== null) - Number(b.atRest !== null) ||
          Number(b.states.includes('rest')) - Number(a.states.includes('rest')) ||
          JOBS.indexOf(a.job) - JOBS.indexOf(b.job) ||
          b.places.length - a.places.length ||
          (a.id < b.id ? -1 : 1),
      );
    const meetings = new Map<string, Meeting>();
    for (const meeting of this.#meetings.values()) {
      const ink = leaders.get(meeting.ink);
      const ground = meeting.ground === null ? null : (leaders.get(meeting.ground) ?? null);
      if (ink === undefined || ink === ground || (meeting.ground !== null && ground === null)) continue;
      const id = `${meeting.kind}|${ink}|${ground ?? meeting.outside}|${meeting.wanted}`;
      const known = meetings.get(id);
      meetings.set(id, {
        ...meeting,
        ink,
        ground,
        before: Math.min(meeting.before, known?.before ?? Infinity),
        places: meeting.places + (known?.places ?? 0),
      });
    }
    return { rows, meetings: [...meetings.values()] };
  }

  /** For each entry the one that stands for it: the most painted of the same job within `SAME_TO_THE_EYE`. */
  #leaders(): Map<string, string> {
    const weight = ({ places }: Entry): number => places.reduce((sum, { area }) => sum + area, 0) + places.length;
    const leaders: { readonly entry: Entry; readonly lab: ReturnType<typeof labOf> }[] = [];
    const found = new Map<string, string>();
    for (const entry of [...this.#entries.values()].sort((a, b) => weight(b) - weight(a) || (a.key < b.key ? -1 : 1))) {
      const lab = labOf(entry.color);
      const leader = leaders.find(
        (other) =>
          other.entry.job === entry.job &&
          other.entry.isOnDark === entry.isOnDark &&
          // What shows in states only is a row beside the one at rest, however near: its step is what matters.
          isAtRest(other.entry) === isAtRest(entry) &&
          Math.abs((other.entry.color.alpha ?? 1) - (entry.color.alpha ?? 1)) < 0.02 &&
          deltaE2000OfLab(other.lab, lab) <= SAME_TO_THE_EYE,
      );
      if (!leader) leaders.push({ entry, lab });
      found.set(entry.key, (leader?.entry ?? entry).key);
    }
    return found;
  }

  #row(id: string, entries: readonly Entry[], leaders: ReadonlyMap<string, string>): FoundColor {
    const [lead] = entries;
    const raw = entries.flatMap(({ places }) => places);
    const states = CENSUS_STATES.filter((state) => raw.some((place) => place.state === state));
    const homes = new Map<string, Home>();
    for (const { homes: own } of entries)
      for (const [key, { home, places }] of own)
        homes.set(key, { ...home, places: places + (homes.get(key)?.places ?? 0) });
    const rest = new Map<string, number>();
    for (const { atRest } of entries)
      for (const [key, count] of atRest) {
        const leader = leaders.get(key);
        if (leader !== undefined && leader !== id) rest.set(leader, (rest.get(leader) ?? 0) + count);
      }
    return {
      id,
      hex: lead.hex,
      hexes: entries.map(({ hex }) => hex),
      job: lead.job,
      isOnDark: lead.isOnDark,
      places: raw.map(placeOf),
      states,
      area: raw.reduce((sum, { area }) => sum + area, 0),
      elements: new Set(raw.map(({ pageId, element, pseudo }) => `${pageId}:${element}:${pseudo}`)).size,
      homes: [...homes.values()].sort((a, b) => b.places - a.places),
      paints: paintsWords(lead.job, raw),
      isBrand: isBrandColor(lead.color, this.site.palette),
      isExcepted: entries.every(({ places, excepted }) => places.length === excepted),
      isWarning: entries.reduce((sum, { warnings }) => sum + warnings, 0) * 2 > raw.length,
      atRest: states.includes('rest') ? null : ([...rest].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null),
    };
  }
}

/** The place without what it was found by, which cannot cross to another thread. */
function placeOf(raw: RawPlace): FoundPlace {
  const {
    pageId,
    element,
    pseudo,
    property,
    index,
    state,
    area,
    isHidden: isUnseen,
    anchor,
    followsText: follows,
  } = raw;
  return { pageId, element, pseudo, property, index, state, area, isHidden: isUnseen, anchor, followsText: follows };
}

function isAtRest({ places }: Entry): boolean {
  return places.some(({ state }) => state === 'rest');
}

function homeOf({ decided, style }: Painting): Omit<Home, 'places'> {
  const none = { sheet: '', line: 0, selector: '', property: '' };
  if (!decided) return { kind: 'initial', ...none };
  const source = sourceOf(decided.block, decided.entry.declaration.start);
  if (source.kind === 'style-attribute') return { kind: 'inline', ...none };
  if (source.kind === 'presentational-attribute') return { kind: 'attribute', ...none };
  if (source.kind === 'browser') return { kind: 'browser', ...none };
  const [feeding] = feedingProperties(style, decided).filter(
    ({ name, style: from }) => colorOfCss(from.customProperty(name) ?? '') !== null,
  );
  const where = { sheet: source.sheet, line: source.at?.line ?? 0, selector: source.selector };
  return feeding
    ? { kind: 'custom-property', ...where, property: feeding.name }
    : { kind: 'rule', ...where, property: '' };
}
