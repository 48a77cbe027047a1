/** Path of the page that the product itself makes, at the top of a site. */
export const SPECIMEN_PATH = 'upper-veneer-specimen.html';

/** Whether a page is the specimen: looked at like any other, but no page that visitors get. */
export function isSpecimen({ path }: { readonly path: string }): boolean {
  return path === SPECIMEN_PATH;
}
