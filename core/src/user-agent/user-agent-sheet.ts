import type { Namespace } from '../dom/tree.js';

/**
 * The user-agent sheet for HTML, for the properties the product resolves.
 * Source: HTML §15 Rendering, https://html.spec.whatwg.org/multipage/rendering.html; where that leaves the
 * choice to the browser (form controls, focus ring), the values are Chromium's on Linux, read by `getComputedStyle`.
 */
const HTML_SHEET = `
html, body, address, blockquote, center, dialog, div, figure, figcaption, footer, form, header, hr, legend, listing, main, p, plaintext, pre, search, xmp,
article, aside, h1, h2, h3, h4, h5, h6, hgroup, nav, section, dir, dd, dl, dt, menu, ol, ul, fieldset, details, optgroup, option { display: block; }
summary { display: block; }
area, base, basefont, datalist, head, link, meta, noembed, noframes, param, rp, script, style, template, title { display: none; }
[hidden]:not([hidden=until-found i]), input[type=hidden i] { display: none; }
input[type=hidden i] { display: none !important; }
audio:not([controls]) { display: none !important; }
dialog:not([open]) { display: none; }
[popover]:not(:popover-open):not(dialog[open]) { display: none; }
slot { display: contents; }
li { display: list-item; }
details > summary:first-of-type { display: list-item; list-style: disclosure-closed inside; }
details[open] > summary:first-of-type { list-style-type: disclosure-open; }
table { display: table; box-sizing: border-box; border-spacing: 2px; border-collapse: separate; text-indent: initial; }
caption { display: table-caption; text-align: -webkit-center; }
colgroup { display: table-column-group; }
colgroup[hidden], col[hidden], thead[hidden], tbody[hidden], tfoot[hidden], tr[hidden], td[hidden], th[hidden] { display: none; }
col { display: table-column; }
thead, tbody, tfoot, tr { border-color: inherit; }
thead { display: table-header-group; vertical-align: middle; }
tbody { display: table-row-group; vertical-align: middle; }
tfoot { display: table-footer-group; vertical-align: middle; }
tr { display: table-row; vertical-align: inherit; }
td, th { display: table-cell; vertical-align: inherit; padding: 1px; }
th { font-weight: bold; text-align: -internal-center; }
ruby { display: ruby; }
rt { display: ruby-text; font-size: 50%; text-indent: 0; }
input, select, button, textarea, meter, progress { display: inline-block; }

a:-webkit-any-link { cursor: pointer; text-decoration-line: underline; }
:link { color: linktext; }
:visited { color: visitedtext; }
:any-link:active { color: activetext; }
:focus-visible:not(html, body, embed, iframe, object) { outline: auto 1px -webkit-focus-ring-color; }
a:-webkit-any-link:focus-visible { outline-offset: 1px; }

h1 { font-size: 2em; font-weight: bold; }
h2 { font-size: 1.5em; font-weight: bold; }
h3 { font-size: 1.17em; font-weight: bold; }
h4 { font-weight: bold; }
h5 { font-size: 0.83em; font-weight: bold; }
h6 { font-size: 0.67em; font-weight: bold; }
b, strong { font-weight: bolder; }
cite, dfn, em, i, var, address { font-style: italic; }
code, kbd, samp, tt, pre, listing, plaintext, xmp { font-family: monospace; }
pre, listing, plaintext, xmp { white-space: pre; }
big { font-size: larger; }
small, sub, sup { font-size: smaller; }
sub { vertical-align: sub; }
sup { vertical-align: super; }
mark { background-color: mark; color: marktext; }
abbr[title], acronym[title] { text-decoration: dotted underline; }
ins, u { text-decoration-line: underline; }
del, s, strike { text-decoration-line: line-through; }
nobr { white-space: nowrap; }
marquee { display: inline-block; }
q::before { content: open-quote; }
q::after { content: close-quote; }
center { text-align: -webkit-center; }
hr { color: gray; border-style: inset; border-width: 1px; }

ol, ul, menu, dir { padding-left: 40px; }
ul, menu, dir { list-style-type: disc; }
ol { list-style-type: decimal; }
:is(dir, menu, ol, ul) ul, :is(dir, menu, ol, ul) menu, :is(dir, menu, ol, ul) dir { list-style-type: circle; }
:is(dir, menu, ol, ul) :is(dir, menu, ol, ul) ul, :is(dir, menu, ol, ul) :is(dir, menu, ol, ul) menu, :is(dir, menu, ol, ul) :is(dir, menu, ol, ul) dir { list-style-type: square; }

input, select, button, textarea { letter-spacing: initial; word-spacing: initial; text-transform: none; text-indent: initial; text-shadow: initial; text-align: start; font: 400 13.3333px Arial; color: fieldtext; cursor: text; }
input, textarea { background-color: field; appearance: auto; }
input { padding: 1px 2px; border: 2px inset light-dark(#767676, #858585); }
textarea { font-family: monospace; border: 1px solid light-dark(#767676, #858585); padding: 2px; white-space: pre-wrap; }
input:autofill, textarea:autofill, select:autofill { background-image: none !important; background-color: light-dark(#e8f0fe, rgba(70, 90, 126, 0.4)) !important; color: fieldtext !important; }
input[type=checkbox i], input[type=radio i], input[type=range i], input[type=file i], input[type=image i] { padding: initial; border: initial; background-color: initial; cursor: default; }
input[type=checkbox i], input[type=radio i], input[type=search i] { box-sizing: border-box; }
input[type=range i] { background-color: field; color: light-dark(#9d968e, #9d968e); }
input[type=image i] { cursor: pointer; appearance: none; color: currentcolor; }
input[type=image i], input[type=checkbox i], input[type=radio i] { color: fieldtext; }
input[type=file i] { appearance: none; white-space: pre; color: inherit; }
input[type=hidden i] { cursor: default; padding: initial; border: initial; appearance: none; background-color: initial; color: currentcolor; }
input[type=date i], input[type=month i], input[type=week i], input[type=time i], input[type=datetime-local i] { font-family: monospace; padding: 0px 0px 0px 1px; cursor: default; }
input[type=submit i], input[type=button i], input[type=reset i], button, input[type=color i] { color: buttontext; background-color: buttonface; border: 2px outset buttonborder; padding: 1px 6px; cursor: default; box-sizing: border-box; text-align: center; appearance: auto; }
input[type=submit i], input[type=button i], input[type=reset i] { white-space: pre; }
input[type=color i] { border: 1px solid buttonborder; padding: 1px 2px; text-align: start; }
select { color: fieldtext; background-color: buttonface; border: 1px solid light-dark(#767676, #858585); cursor: default; box-sizing: border-box; white-space: pre; appearance: auto; }
select:is([multiple], [size]:not([size="1"], [size="0"], [size=""])) { background-color: field; border-radius: 2px; white-space: nowrap; vertical-align: text-bottom; }
input:disabled, textarea:disabled { color: light-dark(#545454, #aaaaaa); background-color: light-dark(rgba(239, 239, 239, 0.3), rgba(59, 59, 59, 0.3)); border-color: light-dark(rgba(118, 118, 118, 0.3), rgba(133, 133, 133, 0.3)); cursor: default; }
input:is([type=submit i], [type=button i], [type=reset i], [type=color i]):disabled, button:disabled { color: light-dark(rgba(16, 16, 16, 0.3), rgba(255, 255, 255, 0.3)); background-color: light-dark(rgba(239, 239, 239, 0.3), rgba(19, 1, 1, 0.3)); border-color: light-dark(rgba(118, 118, 118, 0.3), rgba(195, 195, 195, 0.3)); }
input:is([type=checkbox i], [type=radio i], [type=file i], [type=image i], [type=range i]):disabled { background-color: initial; border-color: initial; }
select:disabled { opacity: 0.7; color: graytext; border-color: light-dark(rgba(118, 118, 118, 0.3), rgba(133, 133, 133, 0.3)); }
button:active:enabled, input:is([type=submit i], [type=button i], [type=reset i]):active:enabled { border-style: inset; }
select:not([multiple], [size]:not([size="1"], [size="0"])) option:enabled:hover { background-color: color-mix(in oklab, currentcolor 10%, transparent); }
select option:enabled:active { background-color: color-mix(in oklab, currentcolor 20%, transparent); }
::placeholder { color: #757575; line-height: initial; display: block; }
optgroup { font-weight: bolder; }
option { font-weight: normal; padding: 0 2px 1px; white-space: nowrap; }
option:disabled, optgroup:disabled { color: graytext; }
select:not([multiple], [size]:not([size="1"], [size="0"], [size=""])) option:disabled { color: inherit; }
select:is([multiple], [size]:not([size="1"], [size="0"], [size=""])) option:checked { color: light-dark(#101010, #ffffff); background-color: light-dark(#cecece, #545454); }
select:is([multiple], [size]:not([size="1"], [size="0"], [size=""])) option:checked:disabled, select:is([multiple], [size]:not([size="1"], [size="0"], [size=""])):disabled option:checked { color: graytext; }
select:is([multiple], [size]:not([size="1"], [size="0"], [size=""])):focus option:checked { color: light-dark(#ffffff, #3b3b3b) !important; background-color: light-dark(#1967d2, #99c8ff) !important; }
select:is([multiple], [size]:not([size="1"], [size="0"], [size=""])):focus option:checked:disabled { background-color: light-dark(#c8c8c8, rgba(59, 59, 59, 0.3)) !important; }
::marker { text-transform: none; }
::backdrop { display: block; }
::file-selector-button { display: inline-block; color: buttontext; background-color: buttonface; border: 2px outset buttonborder; padding: 1px 6px; font: 400 13.3333px Arial; }
label { cursor: default; }
fieldset { border: 2px groove threedface; padding: 0.35em 0.75em 0.625em; min-width: min-content; }
legend { padding: 0 2px; }
progress, meter { appearance: auto; box-sizing: border-box; vertical-align: -0.2em; }
iframe { border: 2px inset; }
dialog { position: absolute; color: canvastext; background-color: canvas; border: solid; padding: 1em; }
[popover] { position: fixed; color: canvastext; background-color: canvas; border: solid; padding: 0.25em; }
dialog:modal { position: fixed; overflow: auto; }
dialog:modal::backdrop { background-color: rgba(0, 0, 0, 0.1); }
img, video, canvas { overflow: clip; }
`;

/** The user-agent sheet for SVG. Source: SVG 2 §6.8; the focus ring and display as Chromium has them. */
const SVG_SHEET = `
:not(svg) { overflow: hidden; }
svg:not(:root) { overflow: clip; }
text, foreignObject { display: block; }
text { white-space: nowrap; text-indent: 0; }
a:-webkit-any-link { cursor: pointer; }
:focus { outline: auto 5px -webkit-focus-ring-color; }
`;

/** The user-agent sheet for MathML. Source: MathML Core Appendix A. */
const MATHML_SHEET = `
* { display: block math; }
math { display: math; font-family: math; }
mi { text-transform: math-auto; }
`;

/** What quirks mode adds for HTML. Source: HTML §15.3.10 and §15.3.6, rules "in quirks mode". */
export const QUIRKS_SHEET = `
table { white-space: initial; line-height: initial; font-weight: initial; font-size: initial; font-variant: initial; font-style: initial; text-align: initial; }
`;

/** User-agent sheets by the namespace they are bound to. */
export const USER_AGENT_SHEETS: readonly { readonly namespace: Namespace; readonly text: string }[] = [
  { namespace: 'html', text: HTML_SHEET },
  { namespace: 'svg', text: SVG_SHEET },
  { namespace: 'mathml', text: MATHML_SHEET },
];
