import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import type { Extension } from '@codemirror/state';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';

/** How CSS looks here: weight and grey alone, since colours are what is judged. */
export const CSS_LOOK: Extension = [
  EditorView.theme({
    '&': { height: '100%', backgroundColor: 'var(--uv-paper)', color: 'var(--uv-ink)', fontSize: '13px' },
    '&.cm-focused': { outline: '2px solid var(--uv-ink)', outlineOffset: '-2px' },
    '.cm-scroller': { fontFamily: 'var(--uv-mono)', lineHeight: '1.55' },
    '.cm-gutters': { backgroundColor: 'var(--uv-paper)', color: 'var(--uv-soft)', border: '0' },
    '.cm-lineNumbers .cm-gutterElement': { minWidth: '36px', padding: '0 6px 0 8px' },
    '.cm-activeLine, .cm-activeLineGutter': { backgroundColor: 'transparent' },
    '.cm-selectionBackground, &.cm-focused > .cm-scroller > .cm-selectionLayer .cm-selectionBackground': {
      backgroundColor: 'color-mix(in srgb, var(--uv-ink) 18%, transparent)',
    },
    '.cm-cursor': { borderLeftColor: 'var(--uv-ink)' },
    '.cm-foldPlaceholder': {
      margin: '0 6px',
      padding: '0 6px',
      border: '1px solid var(--uv-line-strong)',
      borderRadius: '3px',
      backgroundColor: 'var(--uv-bar)',
      color: 'var(--uv-soft)',
    },
    '.cm-panels': { backgroundColor: 'var(--uv-bar)', color: 'var(--uv-ink)' },
    '.cm-panel.cm-search': { padding: '6px 12px', fontFamily: 'inherit' },
    '.cm-searchMatch': { backgroundColor: 'transparent', outline: '1px dashed var(--uv-ink)' },
    '.cm-searchMatch-selected': { outline: '2px solid var(--uv-ink)' },
    '.cm-uv-chip': {
      display: 'inline-block',
      width: '12px',
      height: '12px',
      marginRight: '4px',
      fontSize: '11px',
      lineHeight: '11px',
      textAlign: 'center',
      border: '1px solid color-mix(in srgb, var(--uv-ink) 40%, transparent)',
      verticalAlign: '-1px',
      forcedColorAdjust: 'none',
    },
    '.cm-uv-press': { cursor: 'pointer' },
    '.cm-uv-press:hover': { outline: '2px solid var(--uv-ink)', outlineOffset: '1px' },
    '.cm-uv-palette': { color: 'var(--uv-soft)', backgroundColor: 'var(--uv-bar)' },
    '.cm-uv-rule': { boxShadow: 'inset 3px 0 0 var(--uv-ink)' },
    '.cm-lintRange': { backgroundImage: 'none !important' },
    '.cm-lintRange-error': { textDecoration: 'underline 2px var(--uv-ink)' },
    '.cm-lintRange-warning, .cm-lintRange-info': { textDecoration: 'underline dotted 2px var(--uv-ink)' },
    '.cm-lint-marker': {
      width: '14px',
      height: '14px',
      content: 'none !important',
      textAlign: 'center',
      fontSize: '12px',
      lineHeight: '14px',
    },
    '.cm-lint-marker-error::before': { content: '"✕"' },
    '.cm-lint-marker-warning::before': { content: '"◆"' },
    '.cm-lint-marker-info::before': { content: '"◇"' },
    '.cm-tooltip': {
      border: '1px solid var(--uv-line-strong)',
      backgroundColor: 'var(--uv-paper)',
      color: 'var(--uv-ink)',
    },
    '.cm-tooltip.cm-tooltip-autocomplete > ul': { fontFamily: 'var(--uv-mono)', maxHeight: '220px' },
    '.cm-tooltip.cm-tooltip-autocomplete > ul > li[aria-selected]': {
      backgroundColor: 'var(--uv-ink)',
      color: 'var(--uv-paper)',
    },
    '.cm-completionDetail': { fontStyle: 'normal', marginLeft: '12px', opacity: '0.75' },
    '.cm-completionMatchedText': { textDecoration: 'none', fontWeight: '700' },
    '.cm-diagnostic': {
      borderLeft: '4px solid var(--uv-ink) !important',
      fontFamily: 'var(--uv-text)',
      fontSize: '12.5px',
    },
    '.cm-changedLine': { backgroundColor: 'var(--uv-bar) !important' },
    '&.cm-merge-a .cm-changedLine': {
      backgroundImage:
        'repeating-linear-gradient(-45deg, color-mix(in srgb, var(--uv-ink) 14%, transparent) 0 1px, transparent 1px 7px)',
    },
    '.cm-changedText': { background: 'none !important', fontWeight: '700' },
    '&.cm-merge-a .cm-changedText': { textDecoration: 'line-through' },
    '.cm-changeGutter': { width: '4px' },
    '.cm-changedLineGutter': { background: 'var(--uv-ink) !important' },
    '.cm-collapsedLines': {
      padding: '3px 12px',
      background: 'var(--uv-panel) !important',
      color: 'var(--uv-soft)',
      fontFamily: 'var(--uv-text)',
    },
    '.cm-collapsedLines:before, .cm-collapsedLines:after': { content: '"…" !important' },
  }),
  syntaxHighlighting(
    HighlightStyle.define([
      { tag: tags.comment, color: 'var(--uv-soft)' },
      { tag: [tags.className, tags.tagName, tags.labelName, tags.modifier], fontWeight: '600' },
      { tag: tags.definitionKeyword, fontWeight: '700' },
    ]),
  ),
];
