import { spoken } from '@upper-veneer/words';
import { dressSite, openSite, pageOf, type SiteModel } from '../../site/site-model.js';
import { toEnd } from '../../to-end.js';
import { withOverrides } from '../../plan/plan-override.js';
import { StyleView } from '../../resolve/style-view.js';
import { numberOn } from '../../testing/one-page-site.js';
import type { CensusState } from '../../census/census-states.js';
import { allInState } from '../../census/census-states.js';
import { houseProblem, type HouseShape } from '../../veneer/house-shape.js';
import type { Strategy } from '../fitness.js';
import type { MatchProposal } from '../proposal.js';
import { layMatch } from '../lay-match.js';
import { isProved, verifyMatch } from '../verify-match.js';
import { ShapeGathering } from './find-shapes.js';
import type { ShapeBecomes } from './found-shape.js';
import { proposeShapes, type ProposedShape } from './propose-shapes.js';

/** A theme whose buttons have square corners, and a card with round ones that answers. */
const THEME = `body { font-family: Georgia, serif } button { border-radius: 2px; border: 1px solid #333 }
  .card { border-radius: 12px; border: 1px solid #999; box-shadow: 0 4px 12px #0004; font-family: Arial, sans-serif }
  .card button { border-radius: 10px; border: 2px solid #555 } .card button:hover { border-width: 2px; box-shadow: 0 2px 4px #000 }
  .card button:active { border-radius: 4px } .pill { border-radius: 50%; background: #eee } .tab { border-radius: 8px 8px 0 0; background: #ddd }
  .card code { font-family: monospace }`;
const BODY = `<main><button>One</button><button>Two</button><button>Three</button><h2>Outside</h2><p>Text</p><p>More</p><p>And</p></main>
  <section class=card><h2>Trips</h2><p>By the <code>river</code></p><button id=go>Go</button><span class=pill>9</span><span class=tab>Tab</span></section>`;
const SCOPE = { kind: 'parts', partIds: [1] } as const;
const HOUSE: HouseShape = { corner: '3px', edge: '2px', shadow: 'none', 'text-family': 'Verdana, sans-serif' };
const NOTHING: MatchProposal = { strategy: 'blend', rows: [], unmet: [] };

function opened(shape: HouseShape): SiteModel {
  return dressSite(
    openSite({
      pages: [
        { id: 1, name: 'Home', path: 'index.html', html: `<head><style>${THEME}</style></head><body>${BODY}</body>` },
      ],
      stylesheets: {},
      parts: [{ id: 1, name: 'Card', kind: 'widget', selector: '.card', openers: [] }],
      veneerPlace: 'head-end',
      prefix: 'or',
    }),
    [],
    { swatches: [], roles: [], shape },
  );
}

function proposed(
  site: SiteModel,
  strategy: Strategy = 'blend',
  shapes: Readonly<Record<string, ShapeBecomes>> = {},
): ProposedShape[] {
  const found = new ShapeGathering(site, SCOPE);
  found.add(1, new StyleView(pageOf(site, 1)));
  return proposeShapes(found.result(), SCOPE, site.palette, { strategy, locked: {}, equal: [], shapes });
}

/** What a shape of a row becomes, by part, kind and value. */
function becomes(rows: readonly ProposedShape[]): Record<string, string> {
  return Object.fromEntries(rows.map((row) => [row.found.id, row.value ? `${row.becomes} ${row.css}` : 'stays']));
}

describe('shapes of a scope', () => {
  it('become the house’s where it is settled; what is round, differs by side or is code stays', () => {
    expect(becomes(proposed(opened(HOUSE)))).toEqual({
      'corner box 12px': 'house 3px',
      'corner action 10px': 'house 3px',
      'corner box 50%, round as it is': 'stays',
      'corner box 8px 8px 0px 0px, corners differ by side': 'stays',
      'edge box 1px': 'house 2px',
      'edge action 2px': 'stays',
      'shadow box rgba(0, 0, 0, 0.267) 0px 4px 12px 0px': 'house none',
      'text-family text Arial, sans-serif': 'house Verdana, sans-serif',
      'text-family action Arial': 'house Verdana, sans-serif',
      'text-family text monospace, signs or code': 'stays',
      'heading-family heading Arial, sans-serif': 'stays',
    });
  });

  it('become what is usual around the part where it is to blend in and nothing is settled, and stay where it stands out', () => {
    const blended = becomes(proposed(opened({})));
    expect(blended['corner action 10px']).toBe('page 2px');
    expect(blended['edge action 2px']).toBe('page 1px');
    expect(blended['text-family text Arial, sans-serif']).toBe('page Georgia, serif');
    expect(blended['corner box 12px']).toBe('stays');
    expect(Object.values(becomes(proposed(opened({}), 'stand-out'))).every((own) => own === 'stays')).toBeTrue();
  });

  it('that are the house’s already, however it is written, need no override', () => {
    const as = { corner: '12px', edge: '1px', shadow: '0 4px 12px #0004', 'text-family': 'Arial,sans-serif' };
    expect(becomes(proposed(opened(as)))['shadow box rgba(0, 0, 0, 0.267) 0px 4px 12px 0px']).toBe('stays');
    expect(becomes(proposed(opened(as)))['text-family text Arial, sans-serif']).toBe('stays');
    expect(becomes(proposed(opened(as)))['corner box 12px']).toBe('stays');
  });

  it('are what was set by hand', () => {
    const rows = proposed(opened(HOUSE), 'blend', { 'corner action 10px': 'page', 'corner box 12px': 'leave' });
    expect(becomes(rows)['corner action 10px']).toBe('page 2px');
    expect(becomes(rows)['corner box 12px']).toBe('stays');
  });

  for (const shape of [HOUSE, {}])
    it(`are laid on and proved, states with one of their own keep it: ${JSON.stringify(shape)}`, () => {
      const site = opened(shape);
      const shapes = proposed(site);
      const laid = toEnd(layMatch(site, NOTHING, 1280, [], shapes));
      expect(laid.refused).toEqual([]);
      const after = withOverrides(site, laid);
      const proof = toEnd(verifyMatch(site, after, SCOPE, NOTHING, { shapes }));
      expect(spoken(proof.missed.words)).toEqual([]);
      expect(spoken(proof.spilt.words)).toEqual([]);
      expect(isProved(proof)).toBeTrue();
      const shown = (selector: string, longhand: string, state: CensusState = 'rest'): string => {
        const page = pageOf(after, 1);
        const view = new StyleView(page, { states: allInState(page.document, state) });
        return view.style(page.document.elements[numberOn(after, selector)]).resolved(longhand);
      };
      const corner = shape.corner ?? '2px';
      expect(shown('#go', 'border-top-left-radius')).toBe(corner);
      expect(shown('#go', 'border-top-left-radius', 'hover')).toBe(corner);
      expect(shown('#go', 'border-top-left-radius', 'active')).toBe('4px');
      expect(shown('main button', 'border-top-left-radius')).toBe('2px');
      expect(shown('code', 'font-family')).toBe('monospace');
    });

  it('are not proved where one is missed or another changed', () => {
    const site = opened(HOUSE);
    const shapes = proposed(site);
    expect(isProved(toEnd(verifyMatch(site, site, SCOPE, NOTHING, { shapes })))).toBeFalse();
    const laid = toEnd(layMatch(site, NOTHING, 1280, [], shapes));
    const wide = laid.put.map((override) =>
      override.property === 'border-radius' ? { ...override, selector: 'html body button' } : override,
    );
    const proof = toEnd(verifyMatch(site, withOverrides(site, { put: wide, drop: [] }), SCOPE, NOTHING, { shapes }));
    expect(proof.spilt.count).toBeGreaterThan(0);
  });

  // Reference: CSS Backgrounds 3 and CSS Fonts 4 for what each property takes.
  it('are settled by values that mean the same everywhere', () => {
    expect(spoken(houseProblem('corner', '3px'))).toBeNull();
    expect(spoken(houseProblem('edge', '0'))).toBeNull();
    expect(spoken(houseProblem('shadow', '0 2px 6px #0003, inset 0 0 1px red'))).toBeNull();
    expect(spoken(houseProblem('text-family', '"Atkinson Next", Georgia, serif'))).toBeNull();
    for (const [part, css] of [
      ['corner', '1em'],
      ['corner', '3px} body{'],
      ['edge', '-2px'],
      ['shadow', 'var(--x)'],
      ['shadow', '3px'],
      ['text-family', 'url(x)'],
      ['heading-family', 'Georgia; color: red'],
    ] as const)
      expect(spoken(houseProblem(part, css)))
        .withContext(css)
        .not.toBeNull();
  });
});

describe('a rule that a state brings in again', () => {
  // Reference: CSS Cascading 5 §6.4.3: of a list of selectors the most specific that matches counts.
  it('is overridden there where its selector for the state is more specific, and not where it ranks the same', () => {
    const theme =
      '.card .a, .card#card .a:hover { border-radius: 8px; background: #eee } .card .b, .card .b:hover { border-radius: 9px; background: #eee }';
    const html = `<head><style>${theme}</style></head><body><section class=card id=card><i class=a>A</i><i class=b>B</i></section></body>`;
    const site = dressSite(
      openSite({
        pages: [{ id: 1, name: 'Home', path: 'index.html', html }],
        stylesheets: {},
        parts: [{ id: 1, name: 'Card', kind: 'widget', selector: '.card', openers: [] }],
        veneerPlace: 'head-end',
        prefix: 'or',
      }),
      [],
      { swatches: [], roles: [], shape: { corner: '3px' } },
    );
    const shapes = proposed(site);
    const laid = toEnd(layMatch(site, NOTHING, 1280, [], shapes));
    const proof = toEnd(verifyMatch(site, withOverrides(site, laid), SCOPE, NOTHING, { shapes }));
    expect(spoken(proof.missed.words)).toEqual([]);
    expect(laid.put.filter(({ state }) => state !== 'rest').length).toBeGreaterThan(0);
    expect(laid.put.filter(({ selector, state }) => state !== 'rest' && selector.includes('.b:')).length).toBe(1);
  });
});
