import { decidingDeclaration, type Painting } from '../census/paintings.js';
import type { ElementNode } from '../dom/tree.js';
import type { Page } from '../resolve/page.js';
import type { StyleView } from '../resolve/style-view.js';
import type { Color } from '../values/color.js';
import { readComposite } from '../veneer/composite.js';
import { colorOfCss } from '../veneer/palette.js';

const NO_PALETTE = { swatches: [], roles: [] };
const THUMB = '-webkit-scrollbar-thumb';
const TRACK = '-webkit-scrollbar-track';

/** What lies over a page at times: the highlight of selected text, and scrollbars. Only what a page says itself is told; the rest is the browser's and the visitor's. */
export function overlayPaintings(view: StyleView, element: ElementNode): Painting[] {
  const said = saidOn(view.page);
  if (!said.selection && !said.parts && !said.standard) return [];
  const found: Painting[] = [];
  const add = (pseudo: string, property: string, use: Painting['use'], index = 0, color?: Color | null): void => {
    const style = view.style(element, pseudo);
    const { style: deciding, decided } = decidingDeclaration(style, property);
    const shown = color ?? style.color(property);
    if (!shown || (shown.alpha ?? 0) === 0 || decided?.block.origin !== 'author') return;
    // What comes down, or is said of everything at once, is told once: on the outermost.
    if (deciding.element !== element || isSaidOfRoot(view, element, pseudo, property, decided)) return;
    found.push({ pseudo, use, property, color: shown, index, style: deciding, decided });
  };
  if (said.selection) {
    add('selection', 'background-color', 'fill');
    add('selection', 'color', 'text');
  }
  if (!scrolls(view, element)) return found;
  const standard = said.standard ? view.style(element).resolved('scrollbar-color') : 'auto';
  // Engines that have both take the standard property where it is set. Source: CSS Scrollbars 1 §2, common practice since Chromium 121.
  if (standard !== 'auto')
    readComposite(standard, NO_PALETTE).colors.forEach((value, index) => {
      if (value.kind === 'literal') add('', 'scrollbar-color', 'fill', index, colorOfCss(value.css));
    });
  else if (said.parts) for (const part of [THUMB, TRACK]) add(part, 'background-color', 'fill');
  return found;
}

/** Whether a painting on the root is said of all elements, not of the root alone. */
export function isSaidOfAll({ pseudo, decided }: Painting, element: ElementNode): boolean {
  const subject = decided?.block.selector?.compounds.at(-1);
  return (
    element.parent === null &&
    (pseudo === 'selection' || pseudo.startsWith('-webkit-scrollbar')) &&
    subject !== undefined &&
    subject.type === null &&
    subject.ids.length + subject.classes.length + subject.attributes.length + subject.pseudoClasses.length === 0
  );
}

function isSaidOfRoot(
  view: StyleView,
  element: ElementNode,
  pseudo: string,
  property: string,
  decided: NonNullable<Painting['decided']>,
): boolean {
  const { rootElement } = view.page.document;
  if (element === rootElement || pseudo === '') return false;
  return decidingDeclaration(view.style(rootElement, pseudo), property).decided?.block.rule === decided.block.rule;
}

function scrolls(view: StyleView, element: ElementNode): boolean {
  if (element === view.page.document.rootElement) return true;
  const style = view.style(element);
  return ['overflow-x', 'overflow-y'].some((property) => /^(?:auto|scroll)$/.test(style.resolved(property)));
}

interface Said {
  readonly selection: boolean;
  readonly parts: boolean;
  readonly standard: boolean;
}

const saidByPage = new WeakMap<Page['base'], Said>();

/** Whether a page's own sheets speak of highlights or scrollbars at all. */
function saidOn({ base }: Page): Said {
  let said = saidByPage.get(base);
  if (!said) {
    const names = new Set(
      base.rules.flatMap(({ selectors }) =>
        selectors.flatMap((selector) => selector.pseudoElements.map(({ name }) => name)),
      ),
    );
    said = {
      selection: names.has('selection'),
      parts: names.has(THUMB) || names.has(TRACK),
      standard: base.rules.some(({ declarations }) => declarations.some(({ name }) => name === 'scrollbar-color')),
    };
    saidByPage.set(base, said);
  }
  return said;
}
