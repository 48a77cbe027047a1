/** The two sets of roles a palette can have. */
export const LIGHTINGS = ['light', 'inverted'] as const;
export type Lighting = (typeof LIGHTINGS)[number];

/** How a site tells its second lighting: `prefers-color-scheme: dark`, or an attribute of its root or body. */
export type LightingSignal = { readonly kind: 'scheme' } | LightingMarker;

/** An attribute that calls the second lighting; of `class`, one name. */
export interface LightingMarker {
  readonly kind: 'marker';
  readonly on: 'html' | 'body';
  readonly attribute: string;
  /** Empty for an attribute that needs no value. */
  readonly value: string;
}

export function otherLighting(lighting: Lighting): Lighting {
  return lighting === 'light' ? 'inverted' : 'light';
}

/** Media condition of a second lighting that is told by one. Source: Media Queries 5 §11.5. */
export const DARK_SCHEME = '(prefers-color-scheme: dark)';

/** Selector of the element that carries the marker: `html.night`, `body[data-light="out"]`. */
export function markerSelector({ on, attribute, value }: LightingMarker): string {
  if (attribute === 'class') return `${on}.${CSS_NAME.test(value) ? value : escapeName(value)}`;
  return `${on}[${attribute}${value === '' ? '' : `="${value.replace(/["\\]/g, '\\$&')}"`}]`;
}

/** Selector of the root while the second lighting is called: custom properties set there reach everything. */
export function litRoot(marker: LightingMarker): string {
  return marker.on === 'html' ? markerSelector(marker) : `:root:has(> ${markerSelector(marker)})`;
}

const CSS_NAME = /^-?[A-Za-z_][\w-]*$/;

/** Source: CSSOM §2.1, serialize an identifier, with every character outside names escaped. */
function escapeName(name: string): string {
  return [...name]
    .map((character, i) =>
      /[\w-]/.test(character) && (i > 0 || /[A-Za-z_]/.test(character))
        ? character
        : `\\${(character.codePointAt(0) ?? 0).toString(16)} `,
    )
    .join('');
}
