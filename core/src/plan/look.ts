import type { Message } from '../message/message.js';
import type { Page } from '../resolve/page.js';
import { rootedValue } from '../resolve/rooted-value.js';
import { applicableStates } from '../grid/applicable-states.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { OverrideState, OverrideTarget, Spot } from '../veneer/override.js';
import { boundValue, type OverrideValue } from '../veneer/override-value.js';
import { nameTold } from '../selectors/describe-element.js';
import { passOver, type PassedOver } from './pass-over.js';
import { overridesOfCell } from './plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';

/** How an element looks, to be pasted on another. */
export interface Look {
  readonly name: Message;
  readonly entries: readonly {
    readonly state: OverrideState;
    readonly property: string;
    readonly css: string;
    readonly value: OverrideValue;
  }[];
}

/** What makes a look: paint and type, not place and size. */
const LOOK_PROPERTIES = [
  'color',
  'background-color',
  'background-image',
  'border-color',
  'border-width',
  'border-style',
  'border-radius',
  'box-shadow',
  'text-shadow',
  'text-decoration-line',
  'text-decoration-color',
  'text-decoration-style',
  'outline-color',
  'outline-style',
  'outline-width',
  'font-family',
  'font-weight',
  'letter-spacing',
  'text-transform',
  'opacity',
] as const;

/** The look of an element or pseudo-element in each of its states. */
export function copyLook(
  site: SiteModel,
  { pageId, element: number, pseudo }: Spot & { readonly pseudo: string },
  width: number,
): Look {
  const page = pageOf(site, pageId);
  const element = elementOf(page, number);
  const restStyle = viewIn(page, element, 'rest', width).style(element, pseudo);
  const entries = applicableStates(element, pseudo).flatMap((state) => {
    const style = state === 'rest' ? restStyle : viewIn(page, element, state, width).style(element, pseudo);
    return LOOK_PROPERTIES.flatMap((property) => {
      const css = groupValue(page, style, property);
      if (css === null) return [];
      const own = overridesOfCell(site, { pageId, element: number, pseudo, state, property }).at(-1);
      const color = style.color(longhandsOfProperty(property)[0]);
      return [
        {
          state,
          property,
          css,
          value: own?.value ?? (color ? boundValue(color, site.palette) : { kind: 'literal' as const, css }),
        },
      ];
    });
  });
  return { name: nameTold(element, pseudo), entries };
}

/** The overrides that give a target a look: where it differs, in the states both have. */
export function pasteLook(
  site: SiteModel,
  look: Pick<Look, 'entries'>,
  target: Pick<OverrideTarget, 'pageId' | 'element' | 'pseudo' | 'reach' | 'group' | 'pages' | 'spared' | 'widths'>,
  width: number,
): PassedOver {
  const page = pageOf(site, target.pageId);
  const element = elementOf(page, target.element);
  const wishes: OverrideWish[] = [];
  const styleOf = (state: OverrideState): ElementStyle =>
    viewIn(page, element, state, width).style(element, target.pseudo);
  const restOfLook = new Map(
    look.entries.filter(({ state }) => state === 'rest').map(({ property, css }) => [property, css]),
  );
  for (const state of applicableStates(element, target.pseudo)) {
    const style = styleOf(state);
    for (const entry of look.entries) {
      if (entry.state !== state || groupValue(page, style, entry.property) === entry.css) continue;
      // A state that shows what rest shows, there as here, follows from rest.
      const isAsRest =
        state !== 'rest' &&
        entry.css === restOfLook.get(entry.property) &&
        groupValue(page, style, entry.property) === groupValue(page, styleOf('rest'), entry.property);
      if (!isAsRest) wishes.push({ ...target, state, property: entry.property, value: entry.value, width });
    }
  }
  return passOver(site, wishes);
}

/** Value of a property whose sides or corners agree; `null` where they do not. */
function groupValue(page: Page, style: ElementStyle, property: string): string | null {
  const values = new Set(longhandsOfProperty(property).map((longhand) => rootedValue(style, page, longhand)));
  return values.size === 1 ? [...values][0] : null;
}
