import { spoken } from '@upper-veneer/words';
import { openOnePage, RIVER_PALETTE } from '../testing/one-page-site.js';
import { toEnd } from '../to-end.js';
import { contrastRatio } from '../color/contrast.js';
import { rgb8 } from '../values/color.js';
import { dressSite } from '../site/site-model.js';
import { filesShown, withFilesRead, type FileReading } from './picture-file-findings.js';
import { proveSite } from './prove-site.js';

describe('picture files in a proof', () => {
  const opened = openOnePage(
    'body { background: #fff; color: #1d2b2a } header { background: #104a47 }',
    '<header><img class=logo src=img/logo.svg alt=Logo></header><p><img src=img/map.png alt=Map></p>',
  );
  const site = dressSite(opened, [], RIVER_PALETTE);
  const proof = toEnd(proveSite(site));
  const shown = toEnd(filesShown(site, [{ width: 1280 }]));
  const reading = (own: Partial<FileReading> & { readonly path: string }): FileReading => ({
    inks: [],
    figures: [],
    problem: '',
    ...own,
  });
  // WCAG 2.2's ratio of a dark ink on the header, reckoned beside the product's own.
  const worst = contrastRatio(rgb8(0x20, 0x30, 0x30), rgb8(0x10, 0x4a, 0x47));
  const inked = reading({ path: 'img/logo.svg', figures: [{ ground: '#104a47', lost: 1, worst }] });

  it('asks for logos on their grounds, and for every file', () => {
    expect(shown.map(({ files }) => files.map(({ path, isLogo }) => [path, isLogo]))).toEqual([
      [
        ['img/logo.svg', true],
        ['img/map.png', false],
      ],
    ]);
  });

  it('says that an inked logo is lost on a dark header', () => {
    expect(worst).toBeLessThan(3);
    const { findings, cells } = withFilesRead(site, proof, shown, [inked, reading({ path: 'img/map.png' })]);
    const found = findings.filter(({ id }) => id.startsWith('seen|logo'));
    expect(spoken(found.map(({ level, title, figure }) => [level, title, figure]))).toEqual([
      ['fails', 'Logo logo.svg on #104a47', worst],
    ]);
    expect(cells.find(({ kind, partId }) => kind === 'seen' && partId === found[0].places[0].partId)?.fails).toBe(1);
    const light = { ...inked, figures: [{ ground: '#104a47', lost: 0.02, worst: 9 }] };
    const held = withFilesRead(site, proof, shown, [light, reading({ path: 'img/map.png' })]);
    expect(held.findings.some(({ id }) => id.startsWith('seen|logo'))).toBeFalse();
  });

  it('looks at every width: a header that is dark on small windows alone', () => {
    const css = 'body { background: #fff } @media (max-width: 600px) { header { background: #104a47 } }';
    const narrow = dressSite(
      openOnePage(css, '<header><img class=logo src=img/logo.svg alt=Logo></header>'),
      [],
      RIVER_PALETTE,
    );
    const looked = toEnd(proveSite(narrow));
    const files = toEnd(filesShown(narrow, looked.settings));
    const grounds = new Set(
      files.flatMap((own) => own.files.flatMap((file) => file.grounds.map(({ matched }) => matched))),
    );
    expect(grounds).toEqual(new Set(['#ffffff', '#104a47']));
    const found = withFilesRead(narrow, looked, files, [inked]).findings.filter(({ id }) => id.startsWith('seen|logo'));
    expect(found.length).toBe(1);
    expect(found[0].widths.length).toBeGreaterThan(0);
    expect(found[0].widths.every((width) => width <= 600)).toBeTrue();
  });

  it('tells inks that are none of the brand’s, but none of an edge, nor the brand’s own', () => {
    const inks = [
      { hex: '#d400ff', share: 0.4, isGround: false },
      { hex: '#104a47', share: 0.5, isGround: false },
      { hex: '#00ffd4', share: 0.01, isGround: false },
    ];
    const { findings } = withFilesRead(site, proof, shown, [reading({ path: 'img/map.png', inks }), inked]);
    expect(
      spoken(findings.filter(({ id }) => id.startsWith('ours|inks')).map(({ level, title }) => [level, title])),
    ).toEqual([['look', '1 of 2 inks of map.png']]);
  });

  it('says which files were not read, and why', () => {
    const broken = reading({ path: 'img/map.png', problem: 'it is no picture' });
    const { unseen } = withFilesRead(site, proof, shown, [broken]);
    expect(spoken(unseen.slice(proof.unseen.length))).toEqual([
      { what: 'inks of img/logo.svg', reason: 'beyond the bound' },
      { what: 'inks of img/map.png', reason: 'it is no picture' },
    ]);
  });
});
