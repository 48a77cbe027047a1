import type { ElementNode, SwitchClasses } from '../dom/tree.js';
import type { CompoundSelector, PseudoClass } from '../selectors/selector.js';
import type { StyleRule } from './style-rule.js';

/** Class names that say how something stands, not what it is (common practice). */
const SAYS_HOW =
  /^(?:is|has|was)[-_]\w|(?:^|[-_])(?:open|opened|closed|active|on|off|expanded|collapsed|checked|selected|show|shown|visible|hidden|loading|locked|toggled|pressed)$/i;

/** What the rules of a page switch by class: read off compounds that ask for such a class beside another name. */
export function switchClassesIn(rules: readonly StyleRule[]): SwitchClasses {
  const found = new Map<string, Set<string>>();
  const note = (name: string, how: string): void => {
    const known = found.get(name);
    if (known) known.add(how);
    else found.set(name, new Set([how]));
  };
  const visit = ({ type, ids, classes, pseudoClasses }: CompoundSelector): void => {
    const switching = [...classes, ...classesAskedBy(pseudoClasses)].filter((name) => SAYS_HOW.test(name));
    if (switching.length === 0) return;
    const names = [
      ...classes.filter((name) => !SAYS_HOW.test(name)).map((name) => `.${name}`),
      ...ids.map((id) => `#${id}`),
      ...(classes.length === switching.length && type !== null ? [type.toLowerCase()] : []),
    ];
    for (const name of names) for (const how of switching) note(name, how);
  };
  for (const { selectors } of rules) for (const { compounds } of selectors) compounds.forEach(visit);
  return found;
}

/** Classes in the arguments of `:is()`, `:where()` and `:not()`. */
function classesAskedBy(tests: readonly PseudoClass[]): string[] {
  return tests.flatMap((test) =>
    test.kind === 'is' || test.kind === 'not'
      ? test.list.flatMap(({ compounds }) => (compounds.length === 1 ? [...compounds[0].classes] : []))
      : [],
  );
}

/** Classes by which rules tell two looks of an element apart. */
export function switchClassesOf(element: ElementNode, known: SwitchClasses | undefined): string[] {
  if (!known || known.size === 0) return [];
  const names = [
    ...element.classes.map((name) => `.${name}`),
    ...(element.id ? [`#${element.id}`] : []),
    element.localName,
  ];
  return [...new Set(names.flatMap((name) => [...(known.get(name) ?? [])]))];
}
