/**
 * Pseudo-classes without argument that the product answers. Others that Chromium knows are listed
 * as known but undecided; any other name makes its selector invalid, as browsers have it.
 * Source: Selectors 4, https://drafts.csswg.org/selectors-4/, and HTML §"pseudo-classes".
 */
export const ANSWERED_PSEUDO_CLASSES: ReadonlySet<string> = new Set([
  'hover',
  'active',
  'focus',
  'focus-visible',
  'focus-within',
  'link',
  'visited',
  'any-link',
  'target',
  'enabled',
  'disabled',
  'checked',
  'indeterminate',
  'default',
  'required',
  'optional',
  'valid',
  'invalid',
  'user-valid',
  'user-invalid',
  'in-range',
  'out-of-range',
  'read-only',
  'read-write',
  'placeholder-shown',
  'open',
  'root',
  'empty',
  'first-child',
  'last-child',
  'only-child',
  'first-of-type',
  'last-of-type',
  'only-of-type',
  'defined',
  'autofill',
  'target-before',
  'target-after',
  'fullscreen',
  'modal',
  'popover-open',
  'picture-in-picture',
  'target-current',
  'active-view-transition',
  'current',
  'past',
  'future',
  'interest-source',
  'interest-target',
  // Aliases and vendor spellings that Chromium takes.
  '-webkit-any-link',
  '-webkit-autofill',
  '-webkit-full-screen',
  '-webkit-drag',
  '-webkit-full-page-media',
  '-webkit-full-screen-ancestor',
  'xr-overlay',
]);

/** Pseudo-classes of scrollbar parts only. Source: common practice of engines that have these parts. */
export const SCROLLBAR_PSEUDO_CLASSES: ReadonlySet<string> = new Set([
  'horizontal',
  'vertical',
  'decrement',
  'increment',
  'start',
  'end',
  'double-button',
  'single-button',
  'no-button',
  'corner-present',
  'window-inactive',
]);

/** Pseudo-classes that may follow a pseudo-element standing for a real box. Source: Selectors 4 §3.6.3. */
export const USER_ACTION_PSEUDO_CLASSES: ReadonlySet<string> = new Set([
  'hover',
  'active',
  'focus',
  'focus-visible',
  'focus-within',
]);

/** Pseudo-elements that may be written with a single colon. Source: Selectors 4 §3.6. */
export const LEGACY_PSEUDO_ELEMENTS: ReadonlySet<string> = new Set(['before', 'after', 'first-line', 'first-letter']);

/** Pseudo-elements that the product resolves. */
export const RESOLVED_PSEUDO_ELEMENTS: ReadonlySet<string> = new Set([
  'before',
  'after',
  'marker',
  'placeholder',
  'selection',
  'first-line',
  'first-letter',
  'backdrop',
  'file-selector-button',
  '-webkit-scrollbar',
  '-webkit-scrollbar-thumb',
  '-webkit-scrollbar-track',
  '-webkit-scrollbar-track-piece',
  '-webkit-scrollbar-button',
  '-webkit-scrollbar-corner',
  '-webkit-resizer',
]);

/** Pseudo-elements that are valid in Chromium but not resolved; their rules are kept apart and named. */
export const OTHER_PSEUDO_ELEMENTS: ReadonlySet<string> = new Set([
  'cue',
  'highlight',
  'target-text',
  'spelling-error',
  'grammar-error',
  'details-content',
  'scroll-marker',
  'scroll-marker-group',
  'scroll-button',
  'column',
  'checkmark',
  'picker',
  'picker-icon',
  'search-text',
  'view-transition',
  'view-transition-group',
  'view-transition-image-pair',
  'view-transition-old',
  'view-transition-new',
  'view-transition-group-children',
  'permission-icon',
]);

/** Pseudo-classes by which a rule holds in one state only; the frame answers them by attribute too. */
export const STATE_PSEUDO_CLASSES = [
  'hover',
  'active',
  'focus',
  'focus-visible',
  'focus-within',
  'link',
  'visited',
  'invalid',
  'user-invalid',
  'valid',
  'user-valid',
  'autofill',
  '-webkit-autofill',
  'popover-open',
] as const;
