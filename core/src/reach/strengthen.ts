import { compareSpecificity, type Specificity } from '../selectors/selector.js';
import { addSpecificity } from '../selectors/specificity.js';
import type { Candidate } from './selector-candidates.js';
import { clears, type Threshold } from './threshold.js';

/** The least specific of some selectors once raised over a bar, the one that says fewest of its own names again; names that nothing has where none can. */
export function strengthenOne(candidates: readonly Candidate[], extra: Specificity, bar: Threshold): Candidate {
  const raised = candidates
    .flatMap((candidate) => repeatNames(candidate, extra, bar) ?? [])
    .sort((a, b) => compareSpecificity(a.candidate.specificity, b.candidate.specificity) || a.repeats - b.repeats);
  return raised[0]?.candidate ?? addAbsentNames(candidates[0], extra, bar);
}

/** More classes than this are outweighed by one id. */
const MOST_REPEATS = 12;

/** Ids and classes that a selector lacks to clear a bar. */
function lackOf(
  { specificity }: Candidate,
  extra: Specificity,
  bar: Threshold,
): { readonly ids: number; readonly classes: number } {
  const has = addSpecificity(specificity, extra);
  const ids = Math.max(0, bar.specificity[0] - has[0]);
  if (clears(addSpecificity(has, [ids, 0, 0]), bar)) return { ids, classes: 0 };
  const least = Math.max(1, bar.specificity[1] - has[1]);
  const classes = clears(addSpecificity(has, [ids, least, 0]), bar) ? least : least + 1;
  return classes > MOST_REPEATS ? { ids: ids + 1, classes: 0 } : { ids, classes };
}

/** An id or class as it is written, escapes included. */
// eslint-disable-next-line no-control-regex -- CSS Syntax 3 §4.2: every code point from U+0080 on
const NAMES = /[#.](?:[\w-]|[^\x00-\x7f\\]|\\.)+/g;

/** A selector with the last of its ids or classes said some times more; `null` without one. */
function sayAgain(text: string, mark: '#' | '.', times: number): string | null {
  const last = [...text.matchAll(NAMES)].filter(([name]) => name.startsWith(mark)).pop();
  return last ? text.slice(0, last.index) + last[0].repeat(times + 1) + text.slice(last.index + last[0].length) : null;
}

/** A selector raised over a bar by its last id and its last class, said again: it matches what it did. `null` where it lacks the names. */
function repeatNames(
  candidate: Candidate,
  extra: Specificity,
  bar: Threshold,
): { readonly candidate: Candidate; readonly repeats: number } | null {
  const { tail, specificity } = candidate;
  const text = tail ?? candidate.text;
  // Dots and hashes in attribute values are no names.
  if (text.includes('[')) return null;
  const lack = lackOf(candidate, extra, bar);
  const [hasId, hasClass] = [sayAgain(text, '#', 0) !== null, sayAgain(text, '.', 0) !== null];
  if ((lack.ids > 0 && !hasId) || (lack.classes > 0 && !hasClass && !hasId)) return null;
  // One id more stands above any number of classes.
  const { ids, classes } = lack.classes > 0 && !hasClass ? { ids: lack.ids + 1, classes: 0 } : lack;
  const withClasses = sayAgain(text, '.', classes) ?? text;
  const raised = sayAgain(withClasses, '#', ids) ?? withClasses;
  return {
    candidate: {
      ...candidate,
      ...(tail === undefined ? { text: raised } : { tail: raised }),
      specificity: addSpecificity(specificity, [ids, classes, 0]),
    },
    repeats: ids + classes,
  };
}

/** Selectors that may match the root element itself, which stands in nothing. */
const MAY_BE_ROOT = /^(?:\*|html|:)/;

/** A selector raised over a bar without names of its own: from `:root` down, which is a class's worth, or by one `:not()` of names that nothing has. */
function addAbsentNames(candidate: Candidate, extra: Specificity, bar: Threshold): Candidate {
  const { tail, text, specificity } = candidate;
  const { ids, classes } = lackOf(candidate, extra, bar);
  if (ids === 0 && !MAY_BE_ROOT.test(text))
    return {
      ...candidate,
      text: `${':root'.repeat(classes)} ${text}`,
      specificity: addSpecificity(specificity, [0, classes, 0]),
    };
  const raise = `:not(${'#uv-none'.repeat(ids)}${'.uv-none'.repeat(classes)})`;
  return {
    ...candidate,
    ...(tail === undefined ? { text: text + raise } : { tail: tail + raise }),
    specificity: addSpecificity(specificity, [ids, classes, 0]),
  };
}
