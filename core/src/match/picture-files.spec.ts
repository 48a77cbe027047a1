import { dressSite, openSite } from '../site/site-model.js';
import { toEnd } from '../to-end.js';
import { RIVER_PALETTE } from '../testing/one-page-site.js';
import { foundColors } from './find-colors.js';
import { pictureFiles } from './picture-files.js';
import { proposeMatch } from './propose-match.js';

const SITE = { kind: 'site' } as const;

describe('picture files of a scope', () => {
  const site = dressSite(
    openSite({
      pages: [
        {
          id: 1,
          name: 'Trips',
          path: 'trips/day%20one.html',
          html: `<link rel=stylesheet href="../css/a.css"><body><header class=bar><a class=brand><img src="../img/reed.svg" alt=""></a></header>
            <main><img src="https://elsewhere.example/x.png" alt=""><img src="data:image/png;base64,AAAA" alt=""><img src="pic.png" alt=""><div class=flow>River</div></main></body>`,
        },
      ],
      stylesheets: {
        'css/a.css': '.bar { background: #2a1f6b } .flow { background-image: url(../img/flow.png), url("%zz.png") }',
      },
      parts: [],
      veneerPlace: 'head-end',
      prefix: 'brand',
    }),
    [],
    RIVER_PALETTE,
  );
  const found = foundColors(site, SITE, 1280);
  const bar = found.rows.find(({ hex }) => hex === '#2a1f6b')?.id ?? '';
  const proposal = proposeMatch(site, SITE, found, {
    strategy: 'blend',
    locked: { [bar]: { kind: 'value', value: { kind: 'role', role: 'second', shade: 0 } } },
    equal: [],
  });

  // Reference: RFC 3986 §5.4 for addresses, from the file that names them.
  it('are found by their addresses from page and sheet, logos first; those elsewhere or written into the page are none', () => {
    expect(
      toEnd(pictureFiles(site, SITE, proposal, 1280)).map(({ path, isLogo, places }) => [path, isLogo, places]),
    ).toEqual([
      ['img/reed.svg', true, 1],
      ['css/%zz.png', false, 1],
      ['img/flow.png', false, 1],
      ['trips/pic.png', false, 1],
    ]);
  });

  it('tell what they stand on, as it arrived and as matched', () => {
    const [logo] = toEnd(pictureFiles(site, SITE, proposal, 1280));
    expect(logo.grounds).toEqual([{ arrived: '#2a1f6b', matched: '#104a47', places: 1, spots: [logo.spot] }]);
  });

  it('say where the ground of one cannot be told', () => {
    const html = '<body><div style="background: url(wood.png)"><img src="logo.svg" alt=""></div></body>';
    const over = dressSite(
      openSite({
        pages: [{ id: 1, name: 'Home', path: 'index.html', html }],
        stylesheets: {},
        parts: [],
        veneerPlace: 'head-end',
        prefix: 'brand',
      }),
      [],
      RIVER_PALETTE,
    );
    const [file] = toEnd(pictureFiles(over, SITE, { strategy: 'blend', rows: [], unmet: [] }, 1280));
    expect([file.path, file.untold, file.grounds.length]).toEqual(['logo.svg', 1, 0]);
  });
});
