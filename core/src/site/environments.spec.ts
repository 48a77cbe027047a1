import { spoken } from '@upper-veneer/words';
import { mediaFeaturesIn } from '../conditions/evaluate-media.js';
import { openOnePage } from '../testing/one-page-site.js';
import { oneOfEachStretch, startsOf } from './breakpoints.js';
import { settingsTold, settingsThatMatter } from './environments.js';

/** Settings that matter to the text colour on a page with a stylesheet. */
function of(css: string, longhands: readonly string[] = ['color'], body = '<p class=a>x') {
  return settingsThatMatter(openOnePage(css, body), longhands);
}

function widthsOf(css: string): number[] {
  return [...new Set(of(css).settings.map(({ width }) => width))];
}

describe('the widths that matter', () => {
  // Source: Media Queries 4 §2.4; the first whole number at which the answer can differ, worked out by hand.
  const starts: readonly (readonly [query: string, starts: readonly number[]])[] = [
    ['(min-width: 768px)', [768]],
    ['(max-width: 768px)', [769]],
    ['(max-width: 767.98px)', [768]],
    ['(min-width: 767.2px)', [768]],
    ['(width < 768px)', [768]],
    ['(768px > width)', [768]],
    ['(width > 768px)', [769]],
    ['(400px <= width < 700px)', [400, 700]],
    ['(min-width: 48em)', [768]],
    ['(width = 500px)', [500, 501]],
    ['screen and (min-width: calc(30em + 20px))', [500]],
    ['print and (min-width: 700px)', []],
    ['not all and (min-width: 600px)', [600]],
    ['only screen and (max-width: 63.99em)', [1024]],
    ['(min-width: 600px), print and (min-width: 700px), (not (max-width: 800px))', [600, 801]],
    ['(min-width: what)', []],
  ];
  for (const [query, expected] of starts)
    it(query, () =>
      expect(
        mediaFeaturesIn(query).flatMap((feature) => (feature.kind === 'range' ? startsOf(feature.bounds) : [])),
      ).toEqual([...expected]),
    );

  it('hold one width between each two breakpoints, however many', () => {
    // The five usual breakpoints of a framework, each both ways; its last ranges end on fractions (common practice).
    const css = [576, 768, 992, 1200, 1400]
      .map(
        (at) =>
          `@media (min-width: ${at}px) { .a { color: red } } @media (max-width: ${at - 0.02}px) { .a { color: blue } }`,
      )
      .join('\n');
    expect(widthsOf(css)).toEqual([1400, 1280, 992, 820, 576, 390]);
    const many = Array.from(
      { length: 30 },
      (_, i) => `@media (min-width: ${300 + i * 40}px) { .a { color: red } }`,
    ).join('\n');
    const widths = widthsOf(many);
    for (let at = 300; at < 1500; at += 40)
      expect(widths.some((width) => width >= at && width < at + 40))
        .withContext(`${at}`)
        .toBeTrue();
  });

  it('are few where conditions do not touch the property', () => {
    expect(widthsOf('@media (min-width: 700px) { .a { padding: 1px; --other: red } } .a { color: red }')).toEqual([
      1280,
    ]);
    expect(
      widthsOf('@media (min-width: 700px) { .a { --ink: red } } .a { color: var(--tone) } .b { --tone: var(--ink) }'),
    ).toEqual([1280, 390]);
    expect(widthsOf('@media (min-width: 700px) { .a { font: 1px x } }')).toEqual([1280]);
  });

  it('say how many were left out beyond the bound', () => {
    const css = Array.from(
      { length: 200 },
      (_, i) => `@media (min-width: ${300 + i * 5}px) { .a { color: red } }`,
    ).join('\n');
    const { settings, unseen } = of(css);
    expect(settings.length).toBe(40);
    expect(settings.filter(({ width }) => [390, 820, 1280].includes(width)).length).toBe(3);
    expect(spoken(unseen)).toEqual(['161 of 201 widths']);
  });

  it('end where the range asked about ends', () => {
    const site = openOnePage('@media (min-width: 700px) { p { color: red } }', '<p>x');
    expect(settingsThatMatter(site, ['color'], { min: null, max: 600 }).settings.map(({ width }) => width)).toEqual([
      390,
    ]);
    expect(settingsThatMatter(site, ['color'], { min: 2000, max: null }).settings.map(({ width }) => width)).toEqual([
      2000,
    ]);
    expect(oneOfEachStretch([601, 768], 240, [1280, 820, 390])).toEqual([390, 601, 1280]);
  });
});

describe('the other settings that matter', () => {
  const rows: readonly (readonly [css: string, words: string, unseen?: readonly string[]])[] = [
    ['.a { color: red }', 'at 1280 px'],
    ['@media (prefers-color-scheme: dark) { .a { color: red } }', 'at 1280 px; also dark'],
    [':root { color-scheme: light dark } .a { color: light-dark(red, blue) }', 'at 1280 px; also dark'],
    ['@media (hover: hover) and (pointer: fine) { .a { color: red } }', 'at 1280 px; also without hover'],
    ['@media (orientation: landscape) { .a { color: red } }', 'at 1280 px; also 1280 px high'],
    ['@media (min-height: 900px) { .a { color: red } }', 'at 1280 px; also 900 px high'],
    ['@media (min-resolution: 2dppx) { .a { color: red } }', 'at 1280 px; also 2 dppx'],
    ['@media (prefers-reduced-motion: reduce) { .a { color: red } }', 'at 1280 px; also with reduced motion'],
    [
      '@media (prefers-contrast: more) { .a { color: red } }',
      'at 1280 px; also with more contrast wanted, with less contrast wanted',
    ],
    ['@media (forced-colors: active) { .a { color: red } }', 'at 1280 px', ['forced colours']],
    ['@container (min-width: 300px) { .a { color: red } }', 'at 1280 px', ['@container (min-width: 300px)']],
    ['@media (min-width: 700px) and (prefers-color-scheme: dark) { .a { color: red } }', 'at 1280, 390 px; also dark'],
    ['@media (nonsense: 1) { .a { color: red } }', 'at 1280 px'],
  ];
  for (const [css, words, unseen = []] of rows) {
    it(css, () => {
      const found = of(css);
      expect(spoken(settingsTold(found.settings))).toBe(words);
      expect(spoken(found.unseen)).toEqual([...unseen]);
    });
  }

  it('are looked at one by one where all together are too many, which is said', () => {
    const widths = Array.from(
      { length: 20 },
      (_, i) => `@media (min-width: ${300 + i * 50}px) { .a { color: red } }`,
    ).join('\n');
    const { settings, unseen } = of(
      `${widths} @media (prefers-color-scheme: dark) { .a { color: red } } @media (hover: none) { .a { color: red } } @media (prefers-reduced-motion) { .a { color: red } }`,
    );
    expect(settings.length).toBe(21 * 4);
    expect(spoken(unseen)).toEqual(['several of these conditions at once']);
  });
});
