import type { DraftDocument, DraftFile, SiteDocument } from '@upper-veneer/contract';

/** Writes a draft as a file, all that its sheet is compiled from; the same draft gives the same bytes. */
export function writeDraftFile(
  { name, prefix, asValues, hoverOnly, flatFor, isByLetters, names, parts }: SiteDocument,
  { swatches, roles, second, shape, overrides, ownCss }: DraftDocument,
): string {
  const file: DraftFile = {
    version: 1,
    site: name,
    prefix,
    asValues,
    hoverOnly,
    ...(flatFor === '' ? {} : { flatFor }),
    ...(isByLetters ? { isByLetters } : {}),
    names,
    parts: parts.map((part) => ({ id: part.id, name: part.name })),
    palette: { swatches, roles, second, shape },
    overrides,
    ...(ownCss.length > 0 ? { ownCss } : {}),
  };
  return `${JSON.stringify(file, null, 2)}\n`;
}
