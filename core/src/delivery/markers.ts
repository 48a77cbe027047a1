const BEGIN = '/* begin of the veneer: replaced as a whole, write nothing in it */';
const END = '/* end of the veneer */';

/** A file with the sheet at its end, between markers; one that is there already is replaced where it stands. What else is in the file stays as it is. */
export function betweenMarkers(existing: string, css: string): string {
  const block = css === '' ? '' : `${BEGIN}\n${css.trimEnd()}\n${END}\n`;
  const begin = existing.indexOf(BEGIN);
  const end = begin === -1 ? -1 : existing.indexOf(END, begin);
  if (end !== -1) {
    const rest = existing.slice(end + END.length);
    return existing.slice(0, begin) + block + (rest.startsWith('\n') ? rest.slice(1) : rest);
  }
  if (existing === '' || block === '') return existing + block;
  return `${existing}${existing.endsWith('\n') ? '' : '\n'}\n${block}`;
}
