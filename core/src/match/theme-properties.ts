import type { Message } from '../message/message.js';
import { hexOf } from '../color/read-notation.js';
import type { Palette } from '../veneer/palette.js';
import { colorOfValue, valueTold, type PlainValue } from '../veneer/override-value.js';
import type { FedProperty, Follower } from './fed-properties.js';
import type { MatchChoices, MatchProposal } from './proposal.js';

/** A custom property of the theme that could be overridden itself, instead of each place that follows it. */
export interface ThemeProperty {
  readonly fed: FedProperty;
  /** What it would become: what most of its places in the scope do; `null` where they are left alone. */
  readonly value: PlainValue | null;
  /** The value in words, and its CSS. */
  readonly words: Message | '';
  readonly css: string;
  /** Followers in the scope that become that value, and those that become another or stay: they are overridden besides. */
  readonly agreeing: number;
  readonly others: number;
  /** Followers outside the scope, which would change too. */
  readonly outside: readonly Follower[];
  /** Whether its followers are exactly places of the scope that become one value: the shorter way. */
  readonly isShorter: boolean;
  /** Whether it is overridden: where that was chosen, else where it is the shorter way. */
  readonly isTaken: boolean;
}

/** Followers from which on a property is worth overriding. */
const WORTHWHILE = 2;

/** The properties that feed a proposal's places, those with most of them first. */
export function themeProperties(
  fed: readonly FedProperty[],
  proposal: MatchProposal,
  palette: Palette,
  chosen: MatchChoices['properties'] = null,
): ThemeProperty[] {
  const becomes = new Map<string, PlainValue | null>();
  for (const { found, becomes: next } of proposal.rows)
    for (const place of found.places) becomes.set(keyOf(place), next.kind === 'value' ? next.value : null);
  return fed
    .flatMap((property): ThemeProperty[] => {
      const votes = new Map<string, { readonly value: PlainValue; count: number }>();
      const outside: Follower[] = [];
      const inside: (PlainValue | null)[] = [];
      for (const follower of property.followers) {
        const own = becomes.get(keyOf(follower)) ?? becomes.get(keyOf({ ...follower, state: 'rest' }));
        if (own === undefined) {
          outside.push(follower);
          continue;
        }
        // What is mixed from it would come out otherwise than by itself.
        const value = follower.hex === property.hex ? own : null;
        inside.push(value);
        if (!value) continue;
        const vote = votes.get(JSON.stringify(value)) ?? { value, count: 0 };
        vote.count += 1;
        votes.set(JSON.stringify(value), vote);
      }
      const [best] = [...votes.values()].sort((a, b) => b.count - a.count);
      if (inside.length + outside.length < WORTHWHILE || inside.length === 0) return [];
      const others = inside.length - (best?.count ?? 0);
      const isShorter = best !== undefined && others === 0 && outside.length === 0;
      const color = best ? colorOfValue(best.value, palette) : null;
      return [
        {
          fed: property,
          value: best?.value ?? null,
          words: best ? valueTold({ palette }, best.value) : '',
          css: color ? hexOf(color) : property.hex,
          agreeing: best?.count ?? 0,
          others,
          outside,
          isShorter,
          isTaken: best !== undefined && (chosen ? chosen.includes(property.id) : isShorter),
        },
      ];
    })
    .sort((a, b) => b.agreeing - a.agreeing || (a.fed.id < b.fed.id ? -1 : 1));
}

function keyOf({ pageId, element, pseudo, property, index, state }: Omit<Follower, 'hex' | 'decider'>): string {
  return [pageId, element, pseudo, property, index, state].join();
}
