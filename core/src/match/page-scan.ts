import { ranksAlike } from '../cascade/block.js';
import { allInState, type CensusState } from '../census/census-states.js';
import { looksAlike, type Painting } from '../census/paintings.js';
import { visibleFills } from '../census/visible-fills.js';
import { RATIOS, compositeOver, contrastRatio, relativeLuminance } from '../color/contrast.js';
import { SAME_TO_THE_EYE, deltaE2000 } from '../color/delta-e.js';
import { hexOf } from '../color/read-notation.js';
import { lineageOf, type ElementNode } from '../dom/tree.js';
import { isInactive } from '../selectors/element-states.js';
import { isHidden } from '../parts/propose-openers.js';
import { boxOf, rectsOf, type PageLayout } from '../resolve/page-layout.js';
import type { Page } from '../resolve/page.js';
import { StyleShare } from '../resolve/style-share.js';
import { StyleView } from '../resolve/style-view.js';
import { generatesWords, wantedRatio } from '../resolve/text-figures.js';
import type { SiteModel } from '../site/site-model.js';
import { WHITE, type Color } from '../values/color.js';
import type { EntryKey, Gathering } from './gathering.js';
import { FILL_JOBS, READ_JOBS, jobOf, type Job } from './job.js';
import { isSaidOfAll } from './overlay-paintings.js';
import { matchPaintings } from './paintings.js';
import { veiledContrast } from './veil.js';
import type { Veil } from './found-color.js';

/** Contrast asked of edges of controls, rings and icons. Source: WCAG 2.2, 1.4.11. */
const SEEN = 3;
/** Share of its lines that the glyphs of a text ink (common practice). */
const INK_SHARE = 0.25;
const POINTS = 40_000;
/** Opacity from which nothing is let through. */
const OPAQUE = 0.995;
const UNVEILED = { veil: null, behind: null };
/** What lies over something of its own kind. */
const OVERLAID: Readonly<Partial<Record<Job, Job>>> = { selected: 'highlight', thumb: 'track' };

/** One page looked through, state by state. */
export class PageScan {
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

  /** The page at rest, as it arrived. */
  get restView(): StyleView {
    return this.#rest;
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
      // Said once more for the state, by a rule that an override for rest leaves in force.
      const isEcho = !isNew && before !== null && !ranksAlike(painting.decided?.block, before.decided?.block);
      if (isNew || isEcho)
        into.add(
          key,
          painting,
          {
            node: element,
            page: this.page,
            place: {
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
              ...(isSaidOfAll(painting, element) ? { isOfAll: true } : {}),
              ...(isEcho ? { isEcho } : {}),
            },
          },
          isEcho ? null : keyBefore,
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
    const under = OVERLAID[job];
    if (under) {
      this.#meetOverlay(into, element, view, painting, ink, under);
      return;
    }
    const kind = READ_JOBS.has(job)
      ? 'read'
      : job === 'frame' || job === 'ring' || job === 'icon'
        ? 'seen'
        : FILL_JOBS.has(job) && painting.use === 'fill'
          ? 'apart'
          : null;
    if (kind === null || (painting.color.alpha ?? 0) < 0.2) return;
    const isOnItself = kind === 'read' || painting.pseudo !== '';
    for (const { key, color, owner, film } of this.#groundsUnder(view, isOnItself ? element : element.flatParent)) {
      const { veil, behind } = kind === 'apart' ? UNVEILED : this.#veilOf(view, element, owner);
      const before =
        kind === 'apart'
          ? deltaE2000(compositeOver(painting.color, color), color)
          : veiledContrast(painting.color, film ? compositeOver(film.color, color) : color, veil, behind);
      const wanted =
        kind === 'apart'
          ? SAME_TO_THE_EYE
          : kind === 'seen' && !generatesWords(view.style(element, painting.pseudo))
            ? SEEN
            : wantedRatio(view.style(element, painting.pseudo));
      into.meet({
        kind,
        ink,
        ground: key,
        outside: key === null ? hexOf(color) : '',
        veil,
        film: kind === 'apart' || !film ? null : { row: film.key, outside: film.key === null ? hexOf(film.color) : '' },
        wanted,
        before,
      });
    }
  }

  /** How opacity around an element, and around what lies under it, lets through what lies behind. */
  #veilOf(
    view: StyleView,
    element: ElementNode,
    owner: ElementNode | null,
  ): { readonly veil: Veil | null; readonly behind: Color | null } {
    let [ink, whole] = [1, 1];
    let isAround = false;
    for (let node: ElementNode | null = element; node; node = node.flatParent) {
      isAround ||= node === owner;
      const opacity = Number(view.style(node).resolved('opacity'));
      if (isAround) whole *= opacity;
      else ink *= opacity;
    }
    if (ink * whole > OPAQUE || isOff(element)) return UNVEILED;
    const [behind] = this.#groundsUnder(view, owner?.flatParent ?? null);
    return {
      veil: { ink, whole, behind: behind.key, outside: behind.key === null ? hexOf(behind.color) : '' },
      behind: behind.color,
    };
  }

  /** Selected text is read on its highlight; a thumb is seen on its track. */
  #meetOverlay(
    into: Gathering,
    element: ElementNode,
    view: StyleView,
    painting: Painting,
    ink: string,
    under: Job,
  ): void {
    const below = this.#paintingsIn(view, element).find((other) => jobOf(view, element, other) === under);
    if (!below) return;
    const color = { ...below.color, alpha: 1 };
    into.meet({
      kind: under === 'highlight' ? 'read' : 'seen',
      ink,
      ground: this.#keyOf(view, element, below).key,
      outside: '',
      veil: null,
      wanted: under === 'highlight' ? RATIOS.text : SEEN,
      before: contrastRatio(compositeOver(painting.color, color), color),
    });
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
    if (!found) grounds.set(from, (found = this.#ownGrounds(view, from) ?? this.#throughFilm(view, from)));
    return found;
  }

  /** What lies under an element that hides nothing of it: as it is, or through a thin fill of its own; of two the stronger tells. */
  #throughFilm(view: StyleView, element: ElementNode): readonly GroundUnder[] {
    const under = this.#groundsUnder(view, element.flatParent);
    const isIn = this.isIn(element);
    const around = isIn ? view : this.#dressed;
    const thin = this.#paintingsIn(around, element).find(
      ({ use, pseudo, color }) => use === 'fill' && pseudo === '' && (color.alpha ?? 0) > THINNEST,
    );
    if (!thin) return under;
    const film = { key: isIn ? this.#keyOf(around, element, thin).key : null, color: thin.color };
    const alphaOf = (own: GroundUnder): number => own.film?.color.alpha ?? 0;
    return under.map((ground) => (alphaOf(ground) >= (film.color.alpha ?? 0) ? ground : { ...ground, film }));
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
      owner: element,
      key: isIn ? this.#keyOf(around, element, painting).key : null,
      color: { ...painting.color, alpha: 1 },
    }));
  }
}

/** Names by which makers of sheets say that a link or a label is off (common practice). */
const OFF_NAMES = /^(?:is-)?disabled$/i;

/** Whether an element is, or stands in, what cannot be used: its contrast is asked of nobody. Source: WCAG 2.2, 1.4.3, inactive user interface component. */
function isOff(element: ElementNode): boolean {
  return (
    isInactive(element) ||
    lineageOf(element).some(
      ({ attributes, classes }) => attributes.has('disabled') || classes.some((name) => OFF_NAMES.test(name)),
    )
  );
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
/** Alpha from which a thin fill tells on what is read over it. */
const THINNEST = 0.01;

/** Luminance under which white is read better than black. Source: WCAG 2.2, contrast ratio, solved for the two being equal. */
const DARK = 0.179;

/** A fill under something: a row's, or one outside the scope. */
interface GroundUnder {
  /** Element that paints it; `null` for the canvas. */
  readonly owner: ElementNode | null;
  readonly key: string | null;
  readonly color: Color;
  /** A thin fill over it. */
  readonly film?: { readonly key: string | null; readonly color: Color };
}

/** The canvas, where nothing paints. */
const BARE: readonly GroundUnder[] = [{ owner: null, key: null, color: WHITE }];

interface Viewed {
  readonly paintings: Map<ElementNode, readonly Painting[]>;
  readonly grounds: Map<ElementNode, readonly GroundUnder[]>;
}
