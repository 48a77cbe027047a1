import { longhandsOfProperty } from '../properties/grouped.js';
import { LONGHANDS } from '../properties/longhands.js';
import type { Page } from '../resolve/page.js';
import type { Color } from '../values/color.js';
import type { Override, OverrideState } from '../veneer/override.js';
import { colorOfValue } from '../veneer/override-value.js';
import { longhandsFedBy } from './fed-longhands.js';
import type { SiteModel } from '../site/site-model.js';

/** Longhands that follow another where nothing else is said: the text colour gives its own to many, the font size its measure. */
const FOLLOWERS: Readonly<Record<string, readonly string[]>> = {
  color: [...LONGHANDS]
    .filter(([, { initial }]) => initial === 'currentcolor')
    .map(([name]) => name)
    .concat('caret-color', 'outline-color', 'box-shadow', 'text-shadow', 'fill', 'stroke'),
  'font-size': [
    'line-height',
    'letter-spacing',
    'padding-top',
    'padding-right',
    'padding-bottom',
    'padding-left',
    'width',
    'max-width',
    'border-top-width',
  ],
};

/** What an override is to change: usually what it sets, behind a shadow root what the host's custom property is set for. */
export interface Aim {
  readonly pseudo: string;
  readonly state: OverrideState;
  readonly longhands: readonly string[];
  /** The longhands, and those that follow them. */
  readonly meant: ReadonlySet<string>;
  readonly isInherited: boolean;
  /** The colour it is to have; `null` for what is none. */
  readonly wanted: Color | null;
}

/** Longhands in which a change may show: for a custom property what it feeds. */
export function watchedBy(page: Page, override: Override, { longhands }: Aim): readonly string[] {
  return override.property.startsWith('--') ? longhandsFedBy(page, override.property) : longhands;
}

export function aimOf(site: SiteModel, override: Override): Aim {
  const { pseudo, state, property } = override.through ?? override;
  const longhands = longhandsOfProperty(property);
  const wanted = colorOfValue(override.value, site.palette);
  return {
    // Whoever changes a custom property means all that follows it; a host's is set for one thing behind its root.
    pseudo,
    state,
    longhands,
    meant: new Set(
      withFollowers(
        property.startsWith('--') && !override.through
          ? [...longhands, ...[...site.pages.values()].flatMap((page) => longhandsFedBy(page, property))]
          : longhands,
      ),
    ),
    // Highlights take every property from the highlight of the parent: CSS Pseudo-Elements 4 §3.5.
    wanted,
    isInherited:
      pseudo === 'selection' ||
      longhands.some((longhand) => longhand.startsWith('--') || (LONGHANDS.get(longhand)?.inherited ?? false)),
  };
}

export function withFollowers(longhands: readonly string[]): string[] {
  return [...new Set([...longhands, ...longhands.flatMap((longhand) => FOLLOWERS[longhand] ?? [])])];
}
