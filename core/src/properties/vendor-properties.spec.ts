import { browserSupports } from '../testing/browser-reference.js';
import { isKnownProperty, isPropertyValue } from './is-property-value.js';
import { vendorAnswer, vendorNames } from './vendor-properties.js';

describe('properties by which engines differ', () => {
  // Source: Chromium's CSS.supports(), read off version 156.
  const rows: readonly (readonly [property: string, value: string, isTaken: boolean])[] = [
    ['-ms-ime-align', 'auto', false],
    ['-moz-appearance', 'none', false],
    ['-webkit-appearance', 'none', true],
    ['-webkit-hyphens', 'none', false],
    ['-webkit-touch-callout', 'none', false],
    ['-webkit-overflow-scrolling', 'touch', false],
    ['-webkit-line-clamp', '2', true],
    ['-webkit-backdrop-filter', 'blur(1px)', false],
    ['backdrop-filter', 'blur(1px)', true],
    ['-webkit-mask-image', 'none', true],
    ['-o-object-fit', 'none', false],
    ['-epub-word-break', 'normal', true],
    ['mask-border', 'none', false],
    ['app-region', 'drag', true],
    ['-moz-osx-font-smoothing', 'auto', false],
    ['-webkit-font-smoothing', 'auto', true],
    ['-webkit-nonsense', '1', false],
    ['line-clamp', '2', false],
  ];
  for (const [property, value, isTaken] of rows) {
    it(`${property}: ${value} is ${isTaken ? 'taken' : 'unknown'}`, () => {
      expect(isPropertyValue(property, value)).toBe(isTaken);
      const reference = browserSupports(`(${property}: ${value})`);
      if (reference !== null) expect(reference).toBe(isTaken);
    });
  }

  // Engines move on: what a newer one has learnt or dropped are a few names, a slip in the table is many.
  const MOST_NEWS = 8;

  it('are known as the engine knows them, but for the news of a later version', () => {
    const names = [
      ...vendorNames(),
      '-ms-transform',
      '-moz-transform',
      '-o-transform',
      '-khtml-opacity',
      '-webkit-nonsense',
    ];
    const differing = names.filter(
      (name) => isKnownProperty(name) !== (browserSupports(`(${name}: inherit)`) ?? vendorAnswer(name) === 'known'),
    );
    expect(names.length).toBeGreaterThan(290);
    expect(differing.length).withContext(differing.join(' ')).toBeLessThan(MOST_NEWS);
  });
});
