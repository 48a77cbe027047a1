import { SCROLLBAR_PSEUDO_CLASSES, USER_ACTION_PSEUDO_CLASSES } from './pseudo-names.js';

/**
 * What may follow a pseudo-element, as Chromium 156 answers `CSS.supports('selector(…)')` for each pair; the pairs are asked
 * again in Karma. Selectors 4 §3.6.3 leaves room for it, so the engine is the source.
 */

/** Pseudo-classes that ask about the tree around an element, which no pseudo-element answers. */
const STRUCTURAL: ReadonlySet<string> = new Set([
  'root',
  'empty',
  'first-child',
  'last-child',
  'only-child',
  'first-of-type',
  'last-of-type',
  'only-of-type',
  'nth-child',
  'nth-last-child',
  'nth-of-type',
  'nth-last-of-type',
  'scope',
  'host',
  'host-context',
  'has',
  'current',
  '-webkit-any',
]);

/** Pseudo-elements that are elements to their pseudo-classes. */
const LIKE_ELEMENTS: ReadonlySet<string> = new Set(['part', 'details-content', 'picker', 'permission-icon']);

/** Pseudo-classes of scrollbar parts besides their own. */
const SCROLLBAR_ACTIONS: ReadonlySet<string> = new Set(['hover', 'active', 'enabled', 'disabled']);

const OTHERS: ReadonlyMap<string, ReadonlySet<string>> = new Map([
  ['selection', new Set(['window-inactive'])],
  ['file-selector-button', USER_ACTION_PSEUDO_CLASSES],
  ['cue', USER_ACTION_PSEUDO_CLASSES],
  ['search-text', new Set(['current'])],
  ['scroll-marker', new Set([...USER_ACTION_PSEUDO_CLASSES, 'target-current', 'target-before', 'target-after'])],
  ['scroll-marker-group', new Set(['hover', 'focus-within'])],
  ['scroll-button', new Set([...USER_ACTION_PSEUDO_CLASSES, 'enabled', 'disabled'])],
  ...['group', 'image-pair', 'old', 'new', 'group-children'].map((name): [string, ReadonlySet<string>] => [
    `view-transition-${name}`,
    new Set(['only-child']),
  ]),
]);

/**
 * Whether a pseudo-class, functions that hold selectors set aside, may follow a pseudo-element.
 * @param after name of the pseudo-element without colons, as it is written.
 */
export function mayFollow(name: string, after: string): boolean {
  if (isOfScrollbars(after)) return SCROLLBAR_ACTIONS.has(name) || SCROLLBAR_PSEUDO_CLASSES.has(name);
  if (LIKE_ELEMENTS.has(after))
    return !STRUCTURAL.has(name) && (!SCROLLBAR_PSEUDO_CLASSES.has(name) || name === 'window-inactive');
  return (OTHERS.get(after) ?? (after.startsWith('-webkit-') ? USER_ACTION_PSEUDO_CLASSES : null))?.has(name) ?? false;
}

/** Whether a pseudo-element is a part of a scrollbar, or the corner by which a box is resized. */
export function isOfScrollbars(name: string): boolean {
  return name.startsWith('-webkit-scrollbar') || name === '-webkit-resizer';
}

/** Pseudo-elements that make boxes in the element's own place. Source: CSS Pseudo-Elements 4 §4. */
const TREE_ABIDING: ReadonlySet<string> = new Set([
  'before',
  'after',
  'marker',
  'placeholder',
  'file-selector-button',
  'backdrop',
]);

/** Whether a pseudo-element may follow another. */
export function mayFollowElement(name: string, after: string): boolean {
  if (after === 'slotted') return TREE_ABIDING.has(name);
  if (LIKE_ELEMENTS.has(after)) return name !== 'part' && name !== 'slotted';
  return name === 'marker' && (after === 'before' || after === 'after');
}

/** Vendor names of standard pseudo-elements. Source: Compatibility Standard §4; Chromium resolves both alike. */
export const PSEUDO_ELEMENT_ALIASES: ReadonlyMap<string, string> = new Map([
  ['-webkit-input-placeholder', 'placeholder'],
  ['-webkit-file-upload-button', 'file-selector-button'],
]);

/** The vendor pseudo-elements that Chromium has boxes for, without prefix; others parse and match nothing. */
export const WEBKIT_PSEUDO_ELEMENTS: ReadonlySet<string> = new Set(
  (
    'calendar-picker-indicator color-swatch color-swatch-wrapper date-and-time-value datetime-edit datetime-edit-ampm-field datetime-edit-day-field datetime-edit-fields-wrapper datetime-edit-hour-field ' +
    'datetime-edit-millisecond-field datetime-edit-minute-field datetime-edit-month-field datetime-edit-second-field datetime-edit-text datetime-edit-week-field datetime-edit-year-field file-upload-button inner-spin-button ' +
    'input-placeholder media-controls media-controls-panel media-controls-play-button media-controls-enclosure media-controls-overlay-enclosure media-controls-overlay-play-button media-controls-mute-button ' +
    'media-controls-timeline media-controls-volume-slider media-controls-current-time-display media-controls-time-remaining-display media-controls-fullscreen-button media-controls-toggle-closed-captions-button ' +
    'media-slider-container media-slider-thumb media-text-track-container media-text-track-display media-text-track-region media-text-track-region-container meter-bar meter-even-less-good-value meter-inner-element ' +
    'meter-optimum-value meter-suboptimum-value progress-bar progress-inner-element progress-value resizer scrollbar scrollbar-button scrollbar-corner scrollbar-thumb scrollbar-track scrollbar-track-piece ' +
    'search-cancel-button slider-container slider-runnable-track slider-thumb textfield-decoration-container'
  ).split(' '),
);
