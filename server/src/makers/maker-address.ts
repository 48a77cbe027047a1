/** Origin of the makers whose widgets the demo's pages frame. The stand-in host answers for it, on a second origin of each site. */
export const MAKERS_ORIGIN = 'https://widgets.osier.example';

/** Where a maker's address is really asked. @param widgetsAt address of the stand-in host's second origin for a site, without an end slash. */
export function askedAt(address: string, siteId: number, widgetsAt: (siteId: number) => string): string {
  return address.startsWith(`${MAKERS_ORIGIN}/`) ? widgetsAt(siteId) + address.slice(MAKERS_ORIGIN.length) : address;
}
