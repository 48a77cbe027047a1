import { VENEER_SHEET_NAME, type Page } from '../resolve/page.js';
import type { ElementStyle } from '../resolve/element-style.js';
import type { StyleRule } from '../rules/style-rule.js';
import type { BlockDeclarations } from '../cascade/block.js';
import { matchedInAnyState } from '../selectors/touched.js';
import type { SiteModel } from '../site/site-model.js';
import { plainName } from '../selectors/describe-element.js';
import type { Override } from '../veneer/override.js';
import type { Reach } from './reach.js';
import type { Looked } from './looked.js';
import { placeAt } from './looked.js';
import type { Noted } from './causes.js';
import type { Unseen } from './proof-finding.js';

/** What became of one declaration of the veneer where its rule matched. */
interface Use {
  matched: number;
  won: number;
  changed: number;
  /** Selector of what wins over it where it does not, and whether that is ours. */
  beatenBy: Map<string, boolean>;
}

/** What became of the declarations of a sheet on one page, by `ruleKey|property`. */
export type SheetUse = ReadonlyMap<string, Readonly<Use>>;

const PSEUDOS = ['', 'before', 'after', 'marker', 'placeholder', 'selection'] as const;

/** A rule as it is told on every page alike. */
export function ruleKey({ selectorText, conditions }: StyleRule): string {
  return `${conditions.map(({ kind, text }) => `${kind} ${text}`).join(' and ')}|${selectorText}`;
}

/** Follows each declaration of the veneer: where it matches, wins and changes something, and whether that is in its reach. */
export class SheetWatch {
  readonly #uses = new Map<string, Use>();

  constructor(readonly reach: Reach) {}

  get uses(): SheetUse {
    return this.#uses;
  }

  take(at: Looked): void {
    const { on, element, view, state } = at;
    if (on.page.veneerRules.length === 0) return;
    for (const pseudo of PSEUDOS) {
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
      let use = this.#uses.get(id);
      if (!use) this.#uses.set(id, (use = { matched: 0, won: 0, changed: 0, beatenBy: new Map() }));
      use.matched += 1;
      const overrides = this.reach.overridesOf(rule.selectorText, name);
      const isMeant =
        overrides.length === 0 ||
        overrides.some((override) => this.reach.isMeant(override, at.on.pageId, at.element.number));
      // Whether it changes anything is known once it does; where it is not meant it is asked each time.
      const isAsked = use.changed === 0 || !isMeant;
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
      if (changes) use.changed += 1;
      if (overrides.length === 0) continue;
      at.into.look('inside', at.on.partIdOf(at.element));
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
  at.into.note({
    kind: 'inside',
    level: 'fails',
    cause: `${rule.selectorText}|${property}`,
    what: `${property} spills to`,
    name: plainName(at.element, style.pseudo),
    basis: `${rule.selectorText} was written for other places: it matches here too, and what shows changes.`,
    figure: null,
    needed: null,
    unit: 'none',
    place: placeAt(at, style.pseudo, property),
    mend: { kind: 'rewrite', overrides: overrides.map(({ id }) => id) },
  });
}

function mayMatter({ view, element, on }: Looked, pseudo: (typeof PSEUDOS)[number]): boolean {
  if (!on.dressedPseudos.has(pseudo)) return false;
  if (pseudo === 'placeholder') return element.attributes.has('placeholder');
  if (pseudo === 'marker') return view.style(element).resolved('display') === 'list-item';
  return pseudo === 'selection' || view.generates(element, pseudo);
}

/** Rules that do nothing: they match nothing, never win, are covered, or say what is so anyway. */
export function idleRules(
  site: SiteModel,
  pages: readonly Page[],
  uses: readonly SheetUse[],
  reach: Reach,
): {
  readonly noted: readonly Noted[];
  readonly looksByPart: ReadonlyMap<string, number>;
  readonly unseen: readonly Unseen[];
} {
  const [first] = pages;
  const noted: Noted[] = [];
  const looksByPart = new Map<string, number>();
  const notReached: string[] = [];
  if (!first) return { noted, looksByPart, unseen: [] };
  const seen = new Set<string>();
  for (const rule of first.veneerRules) {
    // An engine guard that this engine does not pass tells nothing about the engines that do.
    if (rule.conditions.some((condition) => condition.kind === 'supports')) continue;
    const key = ruleKey(rule);
    for (const { name } of rule.declarations) {
      const id = `${key}|${name}`;
      if (name.startsWith('--') || seen.has(id)) continue;
      seen.add(id);
      const own = uses.flatMap((use) => use.get(id) ?? []);
      const sum = (of: 'matched' | 'won' | 'changed'): number => own.reduce((total, use) => total + use[of], 0);
      const overrides = reach.overridesOf(rule.selectorText, name);
      const lead = overrides.at(0);
      const part = `${lead?.partId ?? ''}|holds`;
      looksByPart.set(part, (looksByPart.get(part) ?? 0) + 1);
      const note = (level: Noted['level'], what: string, basis: string): void => {
        noted.push({
          kind: 'holds',
          level,
          cause: `${what}|${id}`,
          what: `${rule.selectorText} { ${name} } ${what}`,
          name: '',
          basis,
          figure: null,
          needed: null,
          unit: 'none',
          place: {
            pageId: lead?.pageId ?? [...site.pages.keys()][0],
            element: lead?.element ?? 0,
            pseudo: lead?.pseudo ?? '',
            property: name,
            index: 0,
            state: 'rest',
            setting: { width: 1280 },
            lighting: site.palette.lighting ?? 'light',
            partId: lead?.partId ?? null,
          },
          mend: overrides.length > 0 ? { kind: 'drop', overrides: overrides.map((override) => override.id) } : null,
        });
      };
      if (sum('matched') === 0) {
        const isAnywhere = pages.some((page) => matchedInAnyState(page, rule.selectorText).length > 0);
        if (isAnywhere) notReached.push(rule.selectorText);
        else note('fails', 'matches nothing', 'No element of any page has it, in any state.');
      } else if (sum('won') === 0) {
        const beaten = [...new Map(own.flatMap(({ beatenBy }) => [...beatenBy]))];
        const isCovered = beaten.length > 0 && beaten.every(([, isOurs]) => isOurs);
        note(
          isCovered ? 'look' : 'fails',
          isCovered ? 'is covered by another of ours' : 'never wins',
          `Everywhere it matches ${beaten
            .slice(0, 2)
            .map(([selector]) => selector)
            .join(', ')} wins.`,
        );
      } else if (sum('changed') === 0)
        note('look', 'changes nothing', 'What it sets shows without it as well, wherever it matches.');
    }
  }
  return {
    noted,
    looksByPart,
    unseen: [...new Set(notReached)].map((selector) => ({
      what: selector,
      reason: 'it is for a state that is not among those looked at',
    })),
  };
}
