import {
  applicableStates,
  inspect,
  lineageOf,
  REACHES,
  reachOffers,
  type ElementNode,
  type OverrideState,
  type OverrideWish,
  type SiteModel,
  StyleView,
} from '@upper-veneer/core';

/** A property with a value that nothing on the pages has, and how Chromium writes it. */
interface Mark {
  readonly property: string;
  readonly css: string;
  readonly computed: string;
}

export const MARK = 'rgb(122, 63, 209)';

/** Every kind of property the Bench offers. */
const MARKS: readonly Mark[] = [
  ...[
    'color',
    'background-color',
    'border-color',
    'color',
    'background-color',
    'outline-color',
    'text-decoration-color',
    'caret-color',
    'fill',
  ].map((property) => ({ property, css: '#7a3fd1', computed: MARK })),
  {
    property: 'background-image',
    css: 'linear-gradient(90deg, #7a3fd1 10%, #102030 90%)',
    computed: `linear-gradient(90deg, ${MARK} 10%, rgb(16, 32, 48) 90%)`,
  },
  { property: 'box-shadow', css: '0 3px 5px #7a3fd1', computed: `${MARK} 0px 3px 5px 0px` },
  { property: 'text-shadow', css: '1px 2px 3px #7a3fd1', computed: `${MARK} 1px 2px 3px` },
  { property: 'border-radius', css: '7.5px', computed: '7.5px' },
  { property: 'text-decoration-line', css: 'overline', computed: 'overline' },
  { property: 'letter-spacing', css: '1.75px', computed: '1.75px' },
  { property: 'text-transform', css: 'capitalize', computed: 'capitalize' },
  { property: 'font-weight', css: '300', computed: '300' },
  { property: 'font-size', css: '17.5px', computed: '17.5px' },
  { property: 'opacity', css: '0.83', computed: '0.83' },
];

const SKIPPED = new Set([
  'html',
  'head',
  'meta',
  'link',
  'title',
  'style',
  'script',
  'option',
  'template',
  'base',
  'noscript',
]);

export interface Drawn {
  readonly wish: OverrideWish;
  readonly computed: string;
}

/** Properties of a generated box that are drawn. */
const GENERATED: readonly string[] = ['color', 'background-color', 'border-radius', 'opacity', 'box-shadow'];
/** What the other pseudo-elements take: CSS Pseudo-Elements 4 §3.2 and §4. */
const TAKEN_BY: Readonly<Record<string, readonly string[]>> = {
  selection: ['color', 'background-color', 'text-shadow'],
  marker: ['color'],
};

function drawPseudo(view: StyleView, element: ElementNode, draw: () => number): string {
  const generated = ['before', 'after'].filter((name) => view.generates(element, name));
  if (generated.length > 0 && draw() < 0.5) return generated[Math.floor(draw() * generated.length)];
  const chance = draw();
  if (chance < 0.08 && element.ownText.trim() !== '') return 'selection';
  return chance < 0.4 && view.style(element).resolved('display') === 'list-item' ? 'marker' : '';
}

/** A wish drawn over the elements, pseudo-elements, states, properties and reaches of a site. @param draw numbers of 0–1. */
export function drawWish(site: SiteModel, draw: () => number): Drawn {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(draw() * list.length)];
  const [pageId, page] = pick([...site.pages]);
  const element = pick(
    page.document.elements.filter((node) => node.root === page.document.root && !SKIPPED.has(node.localName)),
  );
  const view = new StyleView(page);
  const pseudo = drawPseudo(view, element, draw);
  const parents = lineageOf(element)
    .slice(0, -1)
    .reverse()
    .filter(({ localName }) => !SKIPPED.has(localName) && localName !== 'body')
    .slice(0, 4);
  const parent = parents.length > 0 && pseudo !== 'selection' && draw() < 0.12 ? pick(parents) : null;
  // What follows a switch: a tick beside it, an attribute or class of what it stands in.
  const carrier =
    parent || pseudo === 'selection' || draw() > 0.5
      ? null
      : inspect(site, pageId, element.number, pseudo, 1280).carrier;
  const switched = carrier ? pick(Object.keys(carrier.words) as OverrideState[]) : null;
  const state = parent
    ? 'parent-hover'
    : (switched ?? pick(applicableStates(element, pseudo).filter((name) => name !== 'visited')));
  const mark = pick(
    pseudo === '' ? MARKS : MARKS.filter(({ property }) => (TAKEN_BY[pseudo] ?? GENERATED).includes(property)),
  );
  const drawn = pick(REACHES);
  const groups =
    drawn === 'group' ? reachOffers(site, { pageId, element: element.number, pseudo, reach: 'alike' }).groups : [];
  const group = groups.length > 0 ? pick(pick(groups).selectors) : null;
  // Without a group of its own, or in a state that its list tells, all alike are meant.
  const reach = drawn === 'group' && (!group || parent || switched) ? 'alike' : drawn;
  return {
    computed: mark.computed,
    wish: {
      pageId,
      element: element.number,
      pseudo,
      reach,
      ...(reach === 'group' ? { group } : {}),
      state,
      property: mark.property,
      value: { kind: 'literal', css: mark.css },
      width: 1280,
      ...(parent ? { parent: parent.number } : switched && carrier ? { parent: carrier.element } : {}),
    },
  };
}
