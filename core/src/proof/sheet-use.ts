import { message } from '../message/message.js';
import { VENEER_SHEET_NAME } from '../resolve/page.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleRule } from '../rules/style-rule.js';
import type { BlockDeclarations } from '../cascade/block.js';
import { nameTold } from '../selectors/describe-element.js';
import type { Override } from '../veneer/override.js';
import type { Reach } from './reach.js';
import type { Looked } from './looked.js';
import { placeAt } from './looked.js';

/** A rule as it is told on every page alike. */
export function ruleKey({ selectorText, conditions }: StyleRule): string {
  return `${conditions.map(({ kind, text }) => `${kind} ${text}`).join(' and ')}|${selectorText}`;
}

/** Follows each declaration of the veneer: where it matches, wins and changes something, and whether that is in its reach. */
export class SheetWatch {
  /** Declarations that changed something somewhere. */
  readonly #changing = new Set<string>();

  constructor(readonly reach: Reach) {}

  take(at: Looked): void {
    const { on, element, view, state } = at;
    if (on.page.veneerRules.length === 0) return;
    for (const pseudo of ['', ...on.dressedPseudos]) {
      if (pseudo !== '' && !mayMatter(at, pseudo)) continue;
      const style = view.style(element, pseudo);
      // Inside visited links rules match that only the permitted longhands show.
      const blocks = new Set([...style.blocks, ...(state === 'visited' ? style.seen('color').blocks : [])]);
      const ours = new Map<StyleRule, BlockDeclarations>();
      for (const { rule, declarations } of blocks)
        if (rule?.sheet.name === VENEER_SHEET_NAME) ours.set(rule, declarations);
      if (ours.size === 0) continue;
      const bare = (): ElementStyle => on.bareIn(state).style(element, pseudo);
      for (const [rule, declarations] of ours) this.#takeRule(at, rule, declarations, style, bare);
    }
  }

  #takeRule(
    at: Looked,
    rule: StyleRule,
    { normal, important }: BlockDeclarations,
    style: ElementStyle,
    bare: () => ElementStyle,
  ): void {
    const key = ruleKey(rule);
    const byName = new Map<string, string[]>();
    for (const [longhand, { declaration }] of [...normal, ...important]) {
      const longhands = byName.get(declaration.name);
      if (longhands) longhands.push(longhand);
      else byName.set(declaration.name, [longhand]);
    }
    for (const [name, longhands] of byName) {
      if (name.startsWith('--')) continue;
      const id = `${key}|${name}`;
      const use = at.into.use(at.element.number, id);
      use.matched += 1;
      const overrides = this.reach.overridesOf(rule.selectorText, name);
      const ownParts = overrides.length > 0 ? [] : this.reach.ownPartsOf(rule.selectorText, name);
      const isMeant =
        overrides.length > 0
          ? overrides.some((override) => this.reach.isMeant(override, at.on.pageId, at.element.number))
          : ownParts.length === 0 ||
            ownParts.some((partId) => this.reach.isInOwnPart(partId, at.on.pageId, at.element.number));
      // Whether it changes anything is known once it does; where it is not meant it is asked each time.
      const isAsked = !this.#changing.has(id) || !isMeant;
      let [wins, changes] = [false, false];
      for (const longhand of longhands) {
        const [top, next] = style.seen(longhand).ranked(longhand);
        if (top?.block.rule !== rule) {
          if (top?.block.rule)
            use.beatenBy.set(top.block.rule.selectorText, top.block.rule.sheet.name === VENEER_SHEET_NAME);
          continue;
        }
        wins = true;
        if (!isAsked) continue;
        // Without it another of ours would show.
        const givesWay =
          next?.block.rule?.sheet.name === VENEER_SHEET_NAME &&
          JSON.stringify(next.entry.value) !== JSON.stringify(top.entry.value);
        if (givesWay || style.resolved(longhand) !== bare().resolved(longhand)) changes = true;
      }
      if (wins) use.won += 1;
      if (changes) {
        use.changed += 1;
        this.#changing.add(id);
      }
      if (overrides.length === 0 && ownParts.length === 0) continue;
      at.into.look('inside', at.element.number);
      if (changes && !isMeant) noteSpill(at, rule, name, { style, overrides });
    }
  }
}

/** What a rule changes outside the reach its overrides were made for. */
function noteSpill(
  at: Looked,
  rule: StyleRule,
  property: string,
  { style, overrides }: { readonly style: ElementStyle; readonly overrides: readonly Override[] },
): void {
  const isOwnCss = overrides.length === 0;
  at.into.note({
    kind: 'inside',
    // What was written by hand may be meant for more than the part it stands with.
    level: isOwnCss ? 'look' : 'fails',
    cause: `${rule.selectorText}|${property}`,
    what: message(isOwnCss ? 'proof.own-css-reaches' : 'proof.spills', { property }),
    name: nameTold(at.element, style.pseudo),
    basis: message(isOwnCss ? 'proof.own-css-reaches-basis' : 'proof.spills-basis', { rule: rule.selectorText }),
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, style.pseudo, property),
    mend: isOwnCss ? null : { kind: 'rewrite', overrides: overrides.map(({ id }) => id) },
  });
}

function mayMatter({ view, element }: Looked, pseudo: string): boolean {
  // What is behind a shadow root is an element of its own.
  if (pseudo === 'part' || pseudo === 'slotted') return false;
  if (pseudo === 'placeholder') return element.attributes.has('placeholder');
  if (pseudo === 'marker') return view.style(element).resolved('display') === 'list-item';
  return view.generates(element, pseudo);
}
