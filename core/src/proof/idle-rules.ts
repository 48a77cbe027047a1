import { message, type Message } from '../message/message.js';
import { matchesSwitched } from '../reach/matches-switched.js';
import type { Page } from '../resolve/page.js';
import { matchedInAnyState } from '../selectors/touched.js';
import { placesOf } from '../site/places.js';
import type { SiteModel } from '../site/site-model.js';
import { isSwitchState, type Override } from '../veneer/override.js';
import type { Noted, Use } from './causes.js';
import type { Unseen } from './proof-finding.js';
import type { Reach } from './reach.js';
import { ruleKey } from './sheet-use.js';

/** Whether an override matches what it was made on in a state that scripts bring about, which no look is at: by a class it has then. */
function matchesAsMade(site: SiteModel, override: Override): boolean {
  const { selector, state } = override;
  if (!isSwitchState(state)) return false;
  return placesOf(site, { ...override, reach: 'one' }).some((place) => matchesSwitched(selector, place, state));
}

/**
 * Rules that do nothing: they match nothing, never win, are covered, or say what is so anyway.
 * @param uses what became of each declaration on all elements, by `ruleKey|property`.
 */
export function idleRules(
  site: SiteModel,
  pages: readonly Page[],
  uses: ReadonlyMap<string, Use>,
  reach: Reach,
): {
  readonly noted: readonly Noted[];
  readonly looks: readonly (number | null)[];
  readonly unseen: readonly Unseen[];
} {
  const [first] = pages;
  const noted: Noted[] = [];
  const looks: (number | null)[] = [];
  const notReached: string[] = [];
  if (!first) return { noted, looks, unseen: [] };
  const seen = new Set<string>();
  for (const rule of first.veneerRules) {
    // An engine guard that this engine does not pass tells nothing about the engines that do.
    if (rule.conditions.some((condition) => condition.kind === 'supports')) continue;
    const key = ruleKey(rule);
    for (const { name } of rule.declarations) {
      const id = `${key}|${name}`;
      if (name.startsWith('--') || seen.has(id)) continue;
      seen.add(id);
      const use = uses.get(id);
      const overrides = reach.overridesOf(rule.selectorText, name);
      const lead = overrides.at(0);
      looks.push(lead?.partId ?? null);
      const note = (level: Noted['level'], what: Message, basis: Message): void => {
        noted.push({
          kind: 'holds',
          level,
          cause: `${what.code}|${id}`,
          what: message('proof.rule', { rule: `${rule.selectorText} { ${name} }`, what }),
          name: null,
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
      if (!use || use.matched === 0) {
        const isAnywhere =
          pages.some((page) => matchedInAnyState(page, rule.selectorText).length > 0) ||
          overrides.some((override) => matchesAsMade(site, override));
        if (isAnywhere) notReached.push(rule.selectorText);
        else note('fails', message('proof.matches-nothing'), message('proof.no-element-any-page'));
      } else if (use.won === 0) {
        const beaten = [...use.beatenBy];
        const isCovered = beaten.length > 0 && beaten.every(([, isOurs]) => isOurs);
        note(
          isCovered ? 'look' : 'fails',
          message(isCovered ? 'proof.covered' : 'proof.never-wins'),
          message('proof.everywhere-matches-wins', { beaten: beaten.slice(0, 2).map(([selector]) => selector) }),
        );
      } else if (use.changed === 0)
        note('look', message('proof.changes-nothing'), message('proof.what-sets-shows-without'));
    }
  }
  return {
    noted,
    looks,
    unseen: [...new Set(notReached)].map((selector) => ({
      what: message('plain', { text: selector }),
      reason: message('proof.for-state-or-setting'),
    })),
  };
}
