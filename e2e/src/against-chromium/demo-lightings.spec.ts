import { spoken } from '@upper-veneer/words';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import Reference from 'colorjs.io';
import {
  dressSite,
  foundColors,
  openSite,
  proposeMatch,
  type LightingSignal,
  type Palette,
  type SiteModel,
} from '@upper-veneer/core';
import { demoPages } from '../support/demo-pages.js';
import { root } from '../support/product.js';

interface DemoSite {
  readonly swatches: readonly { readonly name: string; readonly css: string }[];
  readonly roles: readonly {
    readonly role: Palette['roles'][number]['role'];
    readonly swatch: string;
    readonly shade: number;
  }[];
}

/** The demo's pages as one site, dressed in its palette. */
function demoSite(told: LightingSignal | null): SiteModel {
  const { swatches, roles } = JSON.parse(readFileSync(join(root, 'demo/site.json'), 'utf8')) as DemoSite;
  const pages = demoPages().map(({ name, html }, i) => ({ id: i + 1, name, path: `${i}.html`, html }));
  return dressSite(openSite({ pages, stylesheets: {}, parts: [], veneerPlace: 'head-end', prefix: 'brand' }), [], {
    swatches: swatches.map((swatch, i) => ({ id: i + 1, ...swatch })),
    roles: roles.map(({ role, swatch, shade }) => ({
      role,
      shade,
      swatchId: swatches.findIndex(({ name }) => name === swatch) + 1,
    })),
    ...(told ? { second: { told, roles: [] } } : {}),
  });
}

describe('the demo’s whole site, blended in', () => {
  // Reference: WCAG 2.2's ratio by colorjs.io, of the colours proposed for a text and for what it stands on.
  for (const told of [null, { kind: 'scheme' }] as const)
    it(`is proposed so that what could be read can be read${told ? ', in both lightings' : ''}`, () => {
      const site = demoSite(told);
      const scope = { kind: 'site' } as const;
      const found = foundColors(site, scope, 1280);
      const proposal = proposeMatch(site, scope, found, { strategy: 'blend', locked: {}, equal: [] });
      expect(spoken(proposal.unmet.map(({ words }) => words))).toEqual([]);
      const become = new Map(proposal.rows.map((row) => [row.found.id, row]));
      let pairs = 0;
      for (const { kind, ink, ground, wanted, before, veil } of found.meetings) {
        const text = become.get(ink);
        const under = ground === null ? undefined : become.get(ground);
        if (kind !== 'read' || veil || !text || !under || before < wanted) continue;
        const looks = [[text.css, under.css], ...(told ? [[text.inverted?.css ?? '', under.inverted?.css ?? '']] : [])];
        for (const [color, on] of looks) {
          // What shows through is judged over what it lies on, which this does not reckon.
          if (color.length > 7 || on.length > 7) continue;
          pairs += 1;
          expect(new Reference(color).contrastWCAG21(new Reference(on)))
            .withContext(`${text.found.id} on ${under.found.id}`)
            .toBeGreaterThanOrEqual(wanted - 0.01);
        }
      }
      expect(pairs).toBeGreaterThan(told ? 200 : 100);
    });
});
