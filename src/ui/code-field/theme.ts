/** How a text in a language of its own looks: ours, by the colours of the page. */
import { HighlightStyle, syntaxHighlighting } from '@codemirror/language';
import { EditorView } from '@codemirror/view';
import { tags } from '@lezer/highlight';

const look = EditorView.theme({
  '&': { background: 'transparent', color: 'var(--ink)', fontSize: 'var(--size)' },
  '&.cm-focused': { outline: 'none' },
  '.cm-scroller': { fontFamily: 'var(--code-font, var(--mono))', lineHeight: '1.5', overflow: 'auto' },
  '.cm-content': { padding: '5px 0', caretColor: 'var(--ink)' },
  '.cm-line': { padding: '0 8px' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-matchingBracket': { background: 'var(--spruce-tint)', outline: 'none' },
  '.cm-nonmatchingBracket': { background: 'var(--madder-tint)' },
  '.cm-wrong': { background: 'var(--madder-tint)', boxShadow: 'inset 0 -2px 0 var(--madder)' },
  '.cm-tooltip': {
    border: '1px solid var(--line)',
    borderRadius: 'var(--corner)',
    background: 'var(--raised)',
    color: 'var(--ink)',
    zIndex: '30',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul': {
    maxHeight: '216px',
    fontFamily: 'var(--text)',
    fontSize: 'var(--size)',
  },
  '.cm-tooltip.cm-tooltip-autocomplete > ul > li': {
    display: 'flex',
    alignItems: 'baseline',
    justifyContent: 'space-between',
    gap: '24px',
    padding: '4px 8px',
  },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { background: 'var(--spruce-tint)', color: 'var(--ink)' },
  '.cm-completionDetail': {
    marginLeft: '0',
    fontStyle: 'normal',
    fontSize: 'var(--size-small)',
    color: 'var(--ink-quiet)',
  },
});

const colours = HighlightStyle.define([
  { tag: [tags.string, tags.special(tags.string)], color: 'var(--spruce)' },
  {
    tag: [tags.keyword, tags.operatorKeyword, tags.controlKeyword, tags.bool, tags.null],
    color: 'var(--slate)',
    fontWeight: '600',
  },
  { tag: tags.number, color: 'var(--ochre)' },
  { tag: tags.comment, color: 'var(--ink-quiet)' },
]);

/** Look and colours. */
export const theme = [look, syntaxHighlighting(colours)];
