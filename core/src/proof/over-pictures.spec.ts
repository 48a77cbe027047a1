import { say, spoken } from '@upper-veneer/words';
import { contrastRatio } from '../color/contrast.js';
import { openOnePage } from '../testing/one-page-site.js';
import { toEnd } from '../to-end.js';
import { rgb8 } from '../values/color.js';
import { isOverPicture, withPicturesRead, type PictureReading } from './over-pictures.js';
import { ProofMemo } from './proof-memo.js';
import type { Proof, ProofFinding } from './proof-finding.js';
import { proveSite } from './prove-site.js';
import { tryMend } from './try-mend.js';

const CSS = 'body { background: #fff; color: #1d2b2a } .hero { background-image: url(river.png) }';
const HTML = '<div class=hero><p class=a>Over the river</p><p class=b>And back</p></div><p>Dry land</p>';

describe('texts over pictures', () => {
  const site = openOnePage(CSS, HTML);
  const memo = new ProofMemo();
  const proof = toEnd(proveSite(site, { memo }));
  const over = (of: Proof): ProofFinding[] => of.findings.filter(isOverPicture);
  const [finding] = over(proof);
  /** Readings of all places at all widths; those of the first as given, of the others as they hold. */
  const readings = (first: number | null, width?: number): PictureReading[] =>
    finding.places.flatMap((_, index) =>
      finding.widths.map((at) => ({
        findingId: finding.id,
        index,
        ratio: index === 0 && (width === undefined || at === width) ? first : 9,
        ink: '#1d2b2a',
        under: ['#223344', '#8899aa'],
        width: at,
      })),
    );

  it('are to be looked at until their pixels are read, and are nothing more where they hold', () => {
    expect(finding.places.length).toBe(2);
    const read = withPicturesRead(proof, readings(7));
    expect(over(read)).toEqual([]);
    expect(read.findings.some(({ kind }) => kind === 'reads')).toBeFalse();
    expect(read.cells.filter(({ kind, toLookAt }) => kind === 'reads' && toLookAt > 0)).toEqual([]);
  });

  it('fail where one width does, with its figure', () => {
    const [failing, ...rest] = withPicturesRead(proof, readings(1.6, 390)).findings.filter(
      ({ kind }) => kind === 'reads',
    );
    expect([failing.level, failing.figure, failing.needed, failing.places.map(({ setting }) => setting.width)]).toEqual(
      ['fails', 1.6, 4.5, [390]],
    );
    expect(spoken([failing.widths, failing.basis])).toEqual([[390], jasmine.stringContaining('1 of them holds')]);
    expect(rest).toEqual([]);
  });

  it('stay to be looked at where a width was not read, which is said', () => {
    const read = withPicturesRead(proof, readings(null, 390));
    expect(over(read).map(({ places }) => places.length)).toEqual([1]);
    expect(spoken(read.unseen.map(({ what }) => what))).toContain('1 text over pictures');
    expect(over(withPicturesRead(proof, [])).map(({ places }) => places.length)).toEqual([2]);
  });

  it('are mended by the weakest overlay in a colour of the brand that holds over the darkest and lightest pixel', () => {
    const read = withPicturesRead(proof, readings(1.6));
    const tried = toEnd(tryMend(site, read.findings[0], read, memo));
    if (!tried.ok) throw new Error(say(tried.reason));
    const [laid] = tried.mend.put;
    expect([tried.mend.put.length, laid.selector, laid.property]).toEqual([1, '.hero', 'background-image']);
    const share = Number(/ (\d+)%, transparent/.exec(laid.value.kind === 'composite' ? laid.value.css : '')?.[1]) / 100;
    expect(laid.value.kind === 'composite' ? laid.value.css : '').toContain('url(');
    // WCAG 2.2's ratio over the pixel as source-over composites it, by hand: white over the darker one.
    const mixed = [0x22, 0x33, 0x44].map((pixel) => pixel * (1 - share) + 255 * share);
    const ratioAt = ([red, green, blue]: number[]): number =>
      contrastRatio(rgb8(0x1d, 0x2b, 0x2a), rgb8(red, green, blue));
    expect(ratioAt(mixed)).toBeGreaterThan(4.5);
    expect(spoken(tried.mend.label)).toContain(`${(Math.floor(ratioAt(mixed) * 10) / 10).toFixed(1)} : 1`);
  });
});
