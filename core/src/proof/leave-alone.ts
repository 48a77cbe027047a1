import { planOverride } from '../plan/plan-override.js';
import { placesOf } from '../site/places.js';
import type { SiteException } from '../site/exceptions.js';
import type { SiteModel } from '../site/site-model.js';
import type { OverrideWish } from '../veneer/override-wish.js';
import type { ProofFinding, ProofPlace } from './proof-finding.js';

/** Most selectors that one exception is made of. */
const MOST_SELECTORS = 40;

/**
 * The exception by which a finding is left alone: its colour where it is one that is not ours, else its places, by selectors that gather
 * exactly them. `null` where no selector tells its places from others.
 */
export function exceptionFor(site: SiteModel, { kind, places, mend }: ProofFinding): SiteException | null {
  if (kind === 'ours' && mend?.kind === 'nearest') return { kind: 'color', target: mend.hex };
  const wanted = new Map(places.map((place) => [keyOf(place), place]));
  const selectors = new Set<string>();
  while (wanted.size > 0) {
    const [[key, lead]] = wanted;
    const found = selectorFor(site, lead, wanted);
    if (!found || selectors.size >= MOST_SELECTORS) return null;
    selectors.add(found.selector);
    wanted.delete(key);
    for (const served of found.serves) wanted.delete(served);
  }
  return { kind: 'place', target: [...selectors].join(', ') };
}

/** A selector for an element and all alike it where all of them are meant, else for it alone. */
function selectorFor(
  site: SiteModel,
  { pageId, element }: ProofPlace,
  wanted: ReadonlyMap<string, ProofPlace>,
): { readonly selector: string; readonly serves: readonly string[] } | null {
  const base: OverrideWish = {
    pageId,
    element,
    pseudo: '',
    reach: 'alike',
    state: 'rest',
    property: 'outline-offset',
    value: { kind: 'literal', css: '0px' },
    width: 1280,
  };
  const ids = new Map([...site.pages].map(([id, { document }]) => [document, id]));
  const alike = placesOf(site, base).map((place) =>
    keyOf({ pageId: ids.get(place.page.document) ?? -1, element: place.element.number }),
  );
  const isAll = alike.length > 1 && alike.every((key) => wanted.has(key));
  const plan = planOverride(site, isAll ? base : { ...base, reach: 'one' });
  const [put] = plan.ok ? plan.put : [];
  return put ? { selector: put.selector, serves: isAll ? alike : [] } : null;
}

function keyOf({ pageId, element }: Pick<ProofPlace, 'pageId' | 'element'>): string {
  return `${pageId}:${element}`;
}
