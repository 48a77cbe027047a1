/**
 * Properties by which engines differ, as Chromium 156 answers `CSS.supports(name, 'inherit')`; in Karma each row is asked again.
 */

/** Names with the prefix `-webkit-`, which it leaves out, that Chromium knows. It knows none of `-moz-`, `-ms-`, `-o-` or `-khtml-`. */
const WEBKIT: ReadonlySet<string> = new Set(
  (
    'align-content align-items align-self animation animation-delay animation-direction animation-duration animation-fill-mode animation-iteration-count animation-name animation-play-state ' +
    'animation-timing-function app-region appearance backface-visibility background-clip background-origin background-size border-after border-after-color border-after-style border-after-width ' +
    'border-before border-before-color border-before-style border-before-width border-bottom-left-radius border-bottom-right-radius border-end border-end-color border-end-style border-end-width ' +
    'border-horizontal-spacing border-image border-radius border-start border-start-color border-start-style border-start-width border-top-left-radius border-top-right-radius border-vertical-spacing ' +
    'box-align box-decoration-break box-direction box-flex box-ordinal-group box-orient box-pack box-reflect box-shadow box-sizing clip-path column-break-after column-break-before column-break-inside ' +
    'column-count column-gap column-rule column-rule-color column-rule-style column-rule-width column-span column-width columns filter flex flex-basis flex-direction flex-flow flex-grow flex-shrink ' +
    'flex-wrap font-feature-settings font-smoothing hyphenate-character justify-content line-break line-clamp locale logical-height logical-width margin-after margin-before margin-end margin-start mask ' +
    'mask-box-image mask-box-image-outset mask-box-image-repeat mask-box-image-slice mask-box-image-source mask-box-image-width mask-clip mask-composite mask-image mask-origin mask-position mask-position-x ' +
    'mask-position-y mask-repeat mask-size max-logical-height max-logical-width min-logical-height min-logical-width opacity order padding-after padding-before padding-end padding-start perspective ' +
    'perspective-origin perspective-origin-x perspective-origin-y print-color-adjust rtl-ordering ruby-position shape-image-threshold shape-margin shape-outside tap-highlight-color text-combine ' +
    'text-decorations-in-effect text-emphasis text-emphasis-color text-emphasis-position text-emphasis-style text-fill-color text-orientation text-security text-size-adjust text-stroke text-stroke-color ' +
    'text-stroke-width transform transform-origin transform-origin-x transform-origin-y transform-origin-z transform-style transition transition-delay transition-duration transition-property ' +
    'transition-timing-function user-drag user-modify user-select writing-mode'
  ).split(' '),
);

/** Names with the prefix `-epub-`. */
const EPUB: ReadonlySet<string> = new Set(
  'caption-side text-combine text-emphasis text-emphasis-color text-emphasis-style text-orientation text-transform word-break writing-mode'.split(
    ' ',
  ),
);

/** Names without prefix that the grammar tables hold and Chromium does not know. */
const UNKNOWN: ReadonlySet<string> = new Set(
  (
    'align-tracks behavior box-align box-direction box-flex box-flex-group box-lines box-ordinal-group box-orient box-pack caret cue cue-after cue-before font-smooth font-synthesis-position font-width ' +
    'glyph-orientation-horizontal glyph-orientation-vertical hanging-punctuation image-resolution ime-mode initial-letter-align justify-tracks kerning line-clamp line-height-step mask-border ' +
    'mask-border-mode mask-border-outset mask-border-repeat mask-border-slice mask-border-source mask-border-width masonry-auto-flow max-lines overflow-clip-box pause pause-after pause-before ' +
    'position-try-options rest rest-after rest-before ruby-merge scroll-snap-coordinate scroll-snap-destination scroll-snap-points-x scroll-snap-points-y scroll-snap-type-x scroll-snap-type-y speak-as ' +
    'stroke-color text-decoration-inset text-decoration-skip timeline-trigger-exit-range timeline-trigger-exit-range-end timeline-trigger-exit-range-start timeline-trigger-range timeline-trigger-range-end ' +
    'timeline-trigger-range-start voice-balance voice-duration voice-family voice-pitch voice-range voice-rate voice-stress voice-volume white-space-trim'
  ).split(' '),
);

/** Names without prefix that Chromium knows and the grammar tables do not hold; any value of theirs is taken. */
const NEWER: ReadonlySet<string> = new Set(
  (
    'app-region border-shape buffered-rendering color-interpolation color-rendering column-rule-break column-rule-inset column-rule-inset-cap column-rule-inset-cap-end column-rule-inset-cap-start ' +
    'column-rule-inset-end column-rule-inset-junction column-rule-inset-junction-end column-rule-inset-junction-start column-rule-inset-start column-rule-visibility-items flex-line-count frame-sizing ' +
    'page-margin-safety page-orientation row-rule row-rule-break row-rule-color row-rule-inset row-rule-inset-cap row-rule-inset-cap-end row-rule-inset-cap-start row-rule-inset-end row-rule-inset-junction ' +
    'row-rule-inset-junction-end row-rule-inset-junction-start row-rule-inset-start row-rule-style row-rule-visibility-items row-rule-width rule rule-break rule-color rule-inset rule-inset-cap ' +
    'rule-inset-end rule-inset-junction rule-inset-start rule-overlap rule-style rule-visibility-items rule-width scroll-axis-lock size text-fit timeline-trigger-activation-range ' +
    'timeline-trigger-activation-range-end timeline-trigger-activation-range-start timeline-trigger-active-range timeline-trigger-active-range-end timeline-trigger-active-range-start view-transition-group ' +
    'view-transition-scope window-drag'
  ).split(' '),
);

/** What Chromium says of a property; `null` where it says nothing else than the grammar tables. @param property lower case. */
export function vendorAnswer(property: string): 'known' | 'unknown' | null {
  const prefix = /^-([a-z]+)-/.exec(property);
  if (prefix) {
    const name = property.slice(prefix[0].length);
    return (prefix[1] === 'webkit' && WEBKIT.has(name)) || (prefix[1] === 'epub' && EPUB.has(name))
      ? 'known'
      : 'unknown';
  }
  return UNKNOWN.has(property) ? 'unknown' : NEWER.has(property) ? 'known' : null;
}

/** Every name that the tables above speak of. */
export function vendorNames(): string[] {
  return [
    ...[...WEBKIT].map((name) => `-webkit-${name}`),
    ...[...EPUB].map((name) => `-epub-${name}`),
    ...UNKNOWN,
    ...NEWER,
  ];
}
