/** State attributes that a state puts on elements of a page. */
export type ForcedStates = readonly { readonly element: number; readonly names: readonly string[] }[];
