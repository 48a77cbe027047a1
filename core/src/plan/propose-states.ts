import { surroundingsOf } from '../ground/surroundings.js';
import { compositeOver, contrastRatio } from '../color/contrast.js';
import { applicableStates } from '../grid/applicable-states.js';
import { longhandsOfProperty } from '../properties/grouped.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { Color } from '../values/color.js';
import type { OverrideState, OverrideTarget } from '../veneer/override.js';
import { readComposite } from '../veneer/composite.js';
import {
  boundValue,
  colorOfValue,
  shadeOfValue,
  type CompositeValue,
  type OverrideValue,
} from '../veneer/override-value.js';
import type { RoleName } from '../veneer/palette.js';
import { overridesOfCell } from './plan-override.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { passOver, type PassedOver } from './pass-over.js';
import { proposedForState } from './state-steps.js';
import { readableRole } from './readable-role.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { showsText, wantedRatio } from '../resolve/text-figures.js';

/** The target whose states are proposed, and how far the overrides reach. */
export type StatesQuestion = Pick<
  OverrideTarget,
  'pageId' | 'element' | 'pseudo' | 'reach' | 'group' | 'pages' | 'spared' | 'widths'
> & { readonly width: number };

/**
 * Fills states from rest: hover a step darker, pressed a further one, the other way where that would not show; text kept
 * readable on the new fill; the ring, the visited link and the refused field by their roles. What is as wanted already is left,
 * and so are exceptions.
 * @param only one state; all that apply when absent.
 */
export function proposeStates(site: SiteModel, question: StatesQuestion, only?: OverrideState): PassedOver {
  return passOver(site, wishesForStates(site, question, only));
}

function wishesForStates(site: SiteModel, question: StatesQuestion, only?: OverrideState): OverrideWish[] {
  const page = pageOf(site, question.pageId);
  const element = elementOf(page, question.element);
  const { pseudo, width } = question;
  const rest = viewIn(page, element, 'rest', width);
  const restStyle = rest.style(element, pseudo);
  const wishes: OverrideWish[] = [];
  for (const state of applicableStates(element, pseudo)) {
    if (state === 'rest' || (only !== undefined && state !== only)) continue;
    const view = viewIn(page, element, state, width);
    const style = view.style(element, pseudo);
    const wish = (property: string, value: OverrideValue): void => {
      const color = colorOfValue(value, site.palette);
      const [longhand] = longhandsOfProperty(property);
      const now = style.color(longhand);
      if (
        color &&
        now &&
        (now.alpha ?? 0) === (color.alpha ?? 0) &&
        contrastRatio(color, now) < 1.0001 &&
        style.resolved(longhand) === restStyle.resolved(longhand)
      )
        return;
      wishes.push({ ...question, state, property, value });
    };
    const hasRole = (role: RoleName): boolean => site.palette.roles.some((fill) => fill.role === role);
    const ground = surroundingsOf(view, element, pseudo);
    switch (state) {
      case 'hover':
      case 'active': {
        const fill = restStyle.color('background-color');
        const gradient = gradientAtRest(site, question, restStyle);
        const isFilled = gradient === null && (fill?.alpha ?? 0) > 0;
        const lead = gradient !== null ? 'background-image' : isFilled ? 'background-color' : 'color';
        const value = proposedForState(site, gradient ?? restValue(site, question, lead, restStyle), state);
        wish(lead, value);
        if (gradient !== null && value.kind === 'composite' && showsText(style)) {
          const stops = value.colors
            .flatMap((stop) => colorOfValue(stop, site.palette) ?? [])
            .map((stop) => compositeOver(stop, fill ? compositeOver(fill, ground.outside) : ground.outside));
          const text = restStyle.color('color');
          const worst =
            text &&
            [...stops]
              .sort((a, b) => contrastRatio(compositeOver(text, a), a) - contrastRatio(compositeOver(text, b), b))
              .at(0);
          if (worst) wish('color', readableText(site, question, restStyle, worst));
        }
        if (isFilled && style.resolved('background-image') !== 'none')
          wishes.push({ ...question, state, property: 'background-image', value: { kind: 'literal', css: 'none' } });
        const below = isFilled ? colorOfValue(value, site.palette) : null;
        if (isFilled && below && showsText(style))
          wish('color', readableText(site, question, restStyle, compositeOver(below, ground.outside)));
        // An edge in a stray colour is to be matched at rest first; a shade of it would only be another stray.
        if (drawsEdge(restStyle)) {
          const edge = restValue(site, question, 'border-color', restStyle);
          if (edge.kind !== 'literal') wish('border-color', proposedForState(site, edge, state));
        }
        break;
      }
      case 'focus':
        if (hasRole('ring')) {
          wish('outline-color', { kind: 'role', role: 'ring', shade: 0 });
          if (style.resolved('outline-style') === 'none' || style.resolved('outline-width') === '0px') {
            wishes.push(
              { ...question, state, property: 'outline-style', value: { kind: 'literal', css: 'solid' } },
              { ...question, state, property: 'outline-width', value: { kind: 'literal', css: '2px' } },
            );
          }
        }
        break;
      case 'visited':
        if (hasRole('visited'))
          wish('color', readableRole(ground.ground, wantedRatio(style), ['visited', 'link', 'ink'], site.palette));
        break;
      case 'invalid':
        if (hasRole('signal') && drawsEdge(style)) wish('border-color', { kind: 'role', role: 'signal', shade: 0 });
        break;
      case 'checked':
        if (hasRole('accent')) wish('accent-color', { kind: 'role', role: 'accent', shade: 0 });
        break;
      case 'current':
        if ((style.color('background-color')?.alpha ?? 0) > 0 && hasRole('accent')) {
          wish('background-color', { kind: 'role', role: 'accent', shade: 0 });
          const accent = colorOfValue({ kind: 'role', role: 'accent', shade: 0 }, site.palette);
          if (accent)
            wish('color', readableRole(accent, wantedRatio(style), ['on-accent', 'ink', 'ground'], site.palette));
        } else if (hasRole('accent')) {
          wish('color', readableRole(ground.ground, wantedRatio(style), ['accent', 'ink'], site.palette));
        }
        break;
      case 'disabled': {
        const value = shadeOfValue(restValue(site, question, 'background-color', restStyle), 24, site.palette);
        if (value && (restStyle.color('background-color')?.alpha ?? 0) > 0) wish('background-color', value);
        break;
      }
      default:
    }
  }
  return wishes;
}

/** The value a property has at rest: that of our override, else the palette's for its colour. */
export function restValue(
  site: SiteModel,
  question: StatesQuestion,
  property: string,
  restStyle: ElementStyle,
): OverrideValue {
  const own = overridesOfCell(site, {
    pageId: question.pageId,
    element: question.element,
    pseudo: question.pseudo,
    state: 'rest',
    property,
  }).at(-1);
  if (own) return own.value;
  const [longhand] = longhandsOfProperty(property);
  const color = restStyle.color(longhand);
  return color ? boundValue(color, site.palette) : { kind: 'literal', css: restStyle.resolved(longhand) };
}

/** The gradient that is painted at rest, its stops bound to the palette; `null` for a picture or none. */
function gradientAtRest(site: SiteModel, question: StatesQuestion, restStyle: ElementStyle): CompositeValue | null {
  const css = restStyle.resolved('background-image');
  if (!/gradient\(/i.test(css) || /url\(|image-set\(/i.test(css)) return null;
  const own = overridesOfCell(site, {
    pageId: question.pageId,
    element: question.element,
    pseudo: question.pseudo,
    state: 'rest',
    property: 'background-image',
  }).at(-1)?.value;
  const value = own?.kind === 'composite' ? own : readComposite(css, site.palette);
  return value.colors.length > 0 ? value : null;
}

/** The text's own value where it can be read on a ground, else the first role that can. */
export function readableText(
  site: SiteModel,
  question: StatesQuestion,
  restStyle: ElementStyle,
  ground: Color,
): OverrideValue {
  const value = restValue(site, question, 'color', restStyle);
  const color = colorOfValue(value, site.palette);
  const wanted = wantedRatio(restStyle);
  return color && contrastRatio(compositeOver(color, ground), ground) >= wanted
    ? value
    : readableRole(ground, wanted, ['on-accent', 'on-second', 'ground', 'ink'], site.palette);
}

function drawsEdge(style: ElementStyle): boolean {
  return (
    style.resolved('border-top-width') !== '0px' &&
    !/^(?:none|hidden)$/.test(style.resolved('border-top-style')) &&
    (style.color('border-top-color')?.alpha ?? 0) > 0
  );
}
