import { spoken } from '@upper-veneer/words';
import { dressSite, openSite, type SiteModel } from '../site/site-model.js';
import { readExceptions } from '../site/exceptions.js';
import { toEnd } from '../to-end.js';
import { neutralise } from './neutralise.js';
import { verifyNeutral } from './verify-neutral.js';

const SCOPE = { kind: 'parts', partIds: [1] } as const;
const BODY = '<a href="#o">Outside</a><section class=w><p>Text</p><a href="#r">Link</a><i class=tag>New</i></section>';

function opened(theme: string, part: string, exceptions: Parameters<typeof readExceptions>[0] = []): SiteModel {
  const site = openSite({
    pages: [
      {
        id: 1,
        name: 'Home',
        path: 'index.html',
        html: `<head><style>${theme}</style><style>${part}</style></head><body>${BODY}</body>`,
      },
    ],
    stylesheets: {},
    parts: [{ id: 1, name: 'Part', kind: 'widget', selector: '.w', openers: [] }],
    veneerPlace: 'head-end',
    prefix: 'or',
  });
  return dressSite(site, [], { swatches: [], roles: [] }, { exceptions: readExceptions(exceptions) });
}

describe('leaving a part to its theme', () => {
  // WCAG 2.2, 1.4.3: #ccc on white is 1.6 : 1, #1c6dd0 is 5.1 : 1.
  it('is judged in every state: what can be read at rest and not when hovered is said', () => {
    const site = opened(
      'body { color: #222 } a { color: #1c6dd0 } a:hover { color: #ccc }',
      '.w a { color: #5b3fc4 } .w a:hover { color: #2c1780 }',
    );
    const { hardToRead, proof } = toEnd(neutralise(site, SCOPE, 1280));
    expect(hardToRead).toBe(1);
    expect([proof.missed.count, proof.spilt.count]).toEqual([0, 0]);
  });

  it('is not called proved where a colour of the part’s own stands at another width', () => {
    const site = opened('body { color: #222 }', '@media (max-width: 500px) { .w p { color: #5b3fc4 } }');
    const { proof } = toEnd(neutralise(site, SCOPE, 1280));
    expect(spoken(proof.missed.words).join()).toMatch(/color of p, rest, at 390 px/);
  });

  it('is not called proved before it was laid on', () => {
    const site = opened('body { color: #222 }', '.w p { color: #5b3fc4 }');
    expect(toEnd(verifyNeutral(site, site, SCOPE)).proof.missed.count).toBeGreaterThan(0);
  });

  it('passes exceptions over, and sides that are not drawn', () => {
    const part = '.w p { color: #5b3fc4; border: solid #5b3fc4; border-width: 2px 0 } .tag { color: #d0241c }';
    const site = opened('body { color: #222 }', part, [{ kind: 'place', target: '.tag' }]);
    const { put, proof } = toEnd(neutralise(site, SCOPE, 1280));
    expect(put.map(({ selector, property }) => `${selector} ${property}`).sort()).toEqual([
      '.w p border-bottom-color',
      '.w p border-top-color',
      '.w p color',
    ]);
    expect(proof.missed.count).toBe(0);
  });
});
