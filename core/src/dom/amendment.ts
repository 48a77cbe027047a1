/** One thing changed on an element as a page would change it to open what it hides. */
export interface AttributeChange {
  readonly act: 'add-class' | 'drop-class' | 'set-attribute' | 'drop-attribute';
  /** Class or attribute. */
  readonly name: string;
  /** Value of a set attribute; empty for the others. */
  readonly value: string;
}

/** Changes by running number. */
export type Amendments = ReadonlyMap<number, readonly AttributeChange[]>;

/** Attributes after the changes, those in order. */
export function amendAttributes(
  attributes: ReadonlyMap<string, string>,
  changes: readonly AttributeChange[],
): Map<string, string> {
  const amended = new Map(attributes);
  for (const { act, name, value } of changes) {
    const classes = (amended.get('class') ?? '').split(/[\t\n\f\r ]+/).filter((token) => token !== '');
    if (act === 'set-attribute') amended.set(name, value);
    else if (act === 'drop-attribute') amended.delete(name);
    else if (act === 'add-class') amended.set('class', [...classes.filter((token) => token !== name), name].join(' '));
    else if (amended.has('class')) amended.set('class', classes.filter((token) => token !== name).join(' '));
  }
  return amended;
}
