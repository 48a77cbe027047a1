import { message, type Message } from '../message/message.js';
import { compositeOver } from '../color/contrast.js';
import { applicableStates } from '../grid/applicable-states.js';
import { longhandsOfRow } from '../grid/cell.js';
import { ROW_PROPERTIES, stateTold, propertyTold, type GridRowName } from '../grid/rows.js';
import { isOpenToVisited } from '../grid/visited.js';
import { surroundingsOf } from '../ground/surroundings.js';
import { proposedForState } from './state-steps.js';
import { elementOf, pageOf, viewIn, type SiteModel } from '../site/site-model.js';
import { showsText, wantedRatio } from '../resolve/text-figures.js';
import type { OverrideState } from '../veneer/override.js';
import { colorOfValue, shadeOfValue, valueTold, type OverrideValue } from '../veneer/override-value.js';
import type { RoleName } from '../veneer/palette.js';
import { passOver } from './pass-over.js';
import { readableText, restValue, type StatesQuestion } from './propose-states.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import { readableRole } from './readable-role.js';

/** What one row of the grid would be in one state. */
export interface RowProposal {
  readonly state: OverrideState;
  /** `Hover fill: Willow, 12 darker`. */
  readonly words: Message;
  readonly wishes: readonly OverrideWish[];
}

/** Points of lightness by which what is off is paler. */
const OFF_STEP = 24;
/** Roles that say a state by themselves, by row. */
const SAID_BY_ROLE: Readonly<Partial<Record<OverrideState, Readonly<Partial<Record<GridRowName, RoleName>>>>>> = {
  invalid: { edge: 'signal', text: 'signal', ring: 'signal' },
  checked: { accent: 'accent' },
  visited: { text: 'visited', underline: 'visited' },
  focus: { ring: 'ring' },
  current: { fill: 'accent', text: 'accent' },
};

/**
 * One row in every state that applies to the target, from what it is at rest: a step that shows where the pointer or the keyboard is,
 * a role where the palette has one for the state, as at rest everywhere else. What is so already is left out.
 */
export function proposeRow(site: SiteModel, question: StatesQuestion, row: GridRowName): RowProposal[] {
  const page = pageOf(site, question.pageId);
  const element = elementOf(page, question.element);
  const { pseudo, width } = question;
  const { property, kind } = ROW_PROPERTIES[row][0];
  const restStyle = viewIn(page, element, 'rest', width).style(element, pseudo);
  const [longhand] = longhandsOfRow(row, restStyle);
  const rest = restValue(site, question, property, restStyle);
  return applicableStates(element, pseudo)
    .flatMap((state): RowProposal[] => {
      if (state === 'rest' || (state === 'visited' && !isOpenToVisited(property))) return [];
      const view = viewIn(page, element, state, width);
      const style = view.style(element, pseudo);
      const surroundings = surroundingsOf(view, element, pseudo);
      const value =
        kind === 'color'
          ? colorFor(site, state, row, rest, () =>
              readableRole(
                surroundings.ground,
                wantedRatio(style),
                [row === 'text' && state === 'visited' ? 'visited' : 'accent', 'ink'],
                site.palette,
              ),
            )
          : rest;
      const color = colorOfValue(value, site.palette);
      const now = style.color(longhand);
      const isSo =
        kind === 'color'
          ? color !== null &&
            now !== null &&
            String(now.channels) === String(color.channels) &&
            (now.alpha ?? 1) === (color.alpha ?? 1)
          : style.resolved(longhand) === restStyle.resolved(longhand);
      if (isSo) return [];
      const wish: OverrideWish = { ...question, state, property, value };
      const text =
        row === 'fill' && color && showsText(style)
          ? readableText(site, question, restStyle, compositeOver(color, surroundings.outside))
          : null;
      const keepsText =
        text !== null && JSON.stringify(text) === JSON.stringify(restValue(site, question, 'color', restStyle));
      return [
        {
          state,
          words: message('plan.row-becomes', {
            state: stateTold(state),
            property: propertyTold(property),
            value: valueTold(site, value),
          }),
          wishes: passOver(site, [
            wish,
            ...(text && !keepsText ? [{ ...question, state, property: 'color', value: text }] : []),
          ]).wishes,
        },
      ];
    })
    .filter(({ wishes }) => wishes.length > 0);
}

function colorFor(
  site: SiteModel,
  state: OverrideState,
  row: GridRowName,
  rest: OverrideValue,
  readable: () => OverrideValue,
): OverrideValue {
  const role = SAID_BY_ROLE[state]?.[row];
  if (role && site.palette.roles.some((filled) => filled.role === role))
    return row === 'text' && state !== 'invalid' ? readable() : { kind: 'role', role, shade: 0 };
  if (state === 'disabled') return shadeOfValue(rest, OFF_STEP, site.palette) ?? rest;
  return proposedForState(site, rest, state);
}
