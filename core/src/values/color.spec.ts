import { browserComputed } from '../testing/browser-reference.js';
import { rgb8 } from './color.js';
import { resolveColorValue } from './compute-color.js';
import { parseColor } from './parse-color.js';
import { serializeColor } from './serialize-color.js';
import { SYSTEM_COLORS } from './system-colors.js';

const CURRENT = rgb8(10, 20, 30);

function computed(text: string, scheme: 'light' | 'dark' = 'light'): string | null {
  const value = parseColor(text);
  const color = value ? resolveColorValue(value, { scheme, currentColor: CURRENT }) : null;
  return color ? serializeColor(color) : null;
}

/** Rounds the last digits, which float and double arithmetic give differently; Chromium's CIE Lab is off by up to 0.02. */
function near(text: string | null): string | null {
  if (text && /^l(?:ab|ch)/.test(text))
    return text.replace(/-?\d+(?:\.\d+)?(?:e[+-]?\d+)?/g, (number) => String(Math.round(Number(number) * 10) / 10 + 0));
  return (
    text?.replace(/-?\d*\.\d+(?:e[+-]?\d+)?/g, (number) => String(Math.round(Number(number) * 500) / 500 + 0)) ?? null
  );
}

describe('colours', () => {
  const rows: readonly (readonly [text: string, expected: string])[] = [
    // CSS Color 4 §5 to §8.
    ['#f00', 'rgb(255, 0, 0)'],
    ['#F008', 'rgba(255, 0, 0, 0.533)'],
    ['#00ff0080', 'rgba(0, 255, 0, 0.5)'],
    ['red', 'rgb(255, 0, 0)'],
    ['RebeccaPurple', 'rgb(102, 51, 153)'],
    ['transparent', 'rgba(0, 0, 0, 0)'],
    ['rgb(255, 0, 0)', 'rgb(255, 0, 0)'],
    ['rgb(100% 0% 0%)', 'rgb(255, 0, 0)'],
    ['rgb(255 0 0 / 0.5)', 'rgba(255, 0, 0, 0.5)'],
    ['rgba(255, 0, 0, 50%)', 'rgba(255, 0, 0, 0.5)'],
    ['rgb(300 -20 12.7)', 'rgb(255, 0, 13)'],
    ['rgb(none 0 0)', 'rgb(0, 0, 0)'],
    ['rgb(calc(100 + 50) 0 0)', 'rgb(150, 0, 0)'],
    ['hsl(120, 100%, 50%)', 'rgb(0, 255, 0)'],
    ['hsl(120deg 100% 50% / 0.2)', 'rgba(0, 255, 0, 0.2)'],
    ['hsl(0.5turn 50% 50%)', 'rgb(64, 191, 191)'],
    ['hsl(-120 100% 50%)', 'rgb(0, 0, 255)'],
    ['hwb(60 0% 0%)', 'rgb(255, 255, 0)'],
    ['hwb(0 60% 60%)', 'rgb(128, 128, 128)'],
    ['hwb(180 20% 40%)', 'rgb(51, 153, 153)'],
    // §9 and §10.
    ['lab(50% 40 -20)', 'lab(50 40 -20)'],
    ['lab(150 0 0)', 'lab(100 0 0)'],
    ['lch(50 -10 20)', 'lch(50 0 20)'],
    ['oklab(0.5 0.1 -0.1 / 40%)', 'oklab(0.5 0.1 -0.1 / 0.4)'],
    ['oklch(60% 0.15 40)', 'oklch(0.6 0.15 40)'],
    ['oklch(60% 50% 400)', 'oklch(0.6 0.2 40)'],
    ['oklch(0.5 none 20)', 'oklch(0.5 none 20)'],
    ['color(srgb 1 0 0)', 'color(srgb 1 0 0)'],
    ['color(display-p3 1 0.5 0 / 0.3)', 'color(display-p3 1 0.5 0 / 0.3)'],
    ['color(xyz 0.1 0.2 0.3)', 'color(xyz-d65 0.1 0.2 0.3)'],
    ['color(srgb 50% 0 none)', 'color(srgb 0.5 0 none)'],
    // CSS Color 5 §3, color-mix(), with its examples.
    ['color-mix(in srgb, red, blue)', 'color(srgb 0.5 0 0.5)'],
    ['color-mix(in srgb, red 25%, blue)', 'color(srgb 0.25 0 0.75)'],
    ['color-mix(in srgb, red, blue 25%)', 'color(srgb 0.75 0 0.25)'],
    ['color-mix(in srgb, red 20%, blue 20%)', 'color(srgb 0.5 0 0.5 / 0.4)'],
    ['color-mix(in srgb, rgb(255 0 0 / 0.2), blue)', 'color(srgb 0.166667 0 0.833333 / 0.6)'],
    ['color-mix(in hsl, hsl(120 100% 20%), hsl(30 100% 40%))', 'color(srgb 0.45 0.6 0)'],
    ['color-mix(in srgb, red 0%, blue 0%)', 'color(srgb 0.5 0 0.5 / 0)'],
    ['color-mix(in lab, white, black)', 'lab(50 0 0)'],
    ['color-mix(in oklch, white 30%, red)', 'oklch(0.739569 0.180378 29.2339)'],
    ['color-mix(in lch longer hue, red, blue)', 'lch(41.9294 119.026 171.112)'],
    ['color-mix(in oklab, red, transparent)', 'oklab(0.627955 0.224863 0.125846 / 0.5)'],
    ['color-mix(in srgb, currentcolor, white)', 'color(srgb 0.519608 0.539216 0.558824)'],
    ['color-mix(in xyz, red, blue)', 'color(xyz-d65 0.296439 0.142424 0.484808)'],
    ['color-mix(in oklch, oklch(50% 0.1 none), oklch(70% 0.2 60))', 'oklch(0.6 0.15 60)'],
    ['color-mix(in hwb, red, white)', 'color(srgb 1 0.5 0.5)'],
    ['color-mix(in srgb-linear, white, black)', 'color(srgb-linear 0.5 0.5 0.5)'],
    // CSS Color 5 §4, relative colours.
    ['rgb(from red r g b)', 'color(srgb 1 0 0)'],
    ['rgb(from red b g r / 50%)', 'color(srgb 0 0 1 / 0.5)'],
    ['rgb(from #112233 calc(r + 17) g b)', 'color(srgb 0.133333 0.133333 0.2)'],
    ['hsl(from red h s calc(l / 2))', 'color(srgb 0.5 0 0)'],
    ['oklch(from red calc(l - 0.1) c h)', 'oklch(0.527955 0.257683 29.2339)'],
    ['lab(from white l a b)', 'lab(100 0 0)'],
    ['color(from red display-p3 r g b)', 'color(display-p3 0.917488 0.200287 0.138561)'],
    ['rgb(from currentcolor r g b)', 'color(srgb 0.0392157 0.0784314 0.117647)'],
    ['oklch(from rgb(0 0 0 / 0.4) l c h)', 'oklch(0 0 0 / 0.4)'],
    ['hwb(from green h w b)', 'color(srgb 0 0.501961 0)'],
    ['light-dark(red, blue)', 'rgb(255, 0, 0)'],
    ['currentcolor', 'rgb(10, 20, 30)'],
    ['Canvas', 'rgb(255, 255, 255)'],
    ['GrayText', 'rgb(128, 128, 128)'],
  ];
  for (const [text, expected] of rows) {
    it(`${text} is ${expected}`, async () => {
      expect(near(computed(text))).toBe(near(expected));
      const reference = await browserComputed(
        `<!doctype html><body style="color: rgb(10, 20, 30)"><p style="background-color: ${text}">`,
        ['background-color'],
      );
      if (reference) expect(near(computed(text))).toBe(near(reference[3][0]));
    });
  }

  const refused = [
    '',
    'nonsense',
    '#12',
    '#12345',
    '#ggg',
    'rgb()',
    'rgb(1 2)',
    'rgb(1, 2 3)',
    'rgb(1 2 3 4)',
    'rgb(1, 2, none)',
    'rgb(1, 50%, 3)',
    'hsl(1, 2, 3)',
    'hwb(1, 2%, 3%)',
    'lab(1, 2, 3)',
    'color(nowhere 1 2 3)',
    'color(srgb 1 2)',
    'color-mix(red, blue, green)',
    'color-mix(in srgb, red)',
    'color-mix(in nowhere, red, blue)',
    'color-mix(in srgb, red -1%, blue)',
    'color-mix(in srgb shorter hue, red, blue)',
    'rgb(from red x g b)',
    'rgb(from red r g)',
    'light-dark(red)',
    'rgb(1 2 3 /)',
    'red blue',
    'rgb(1 2 3 / 4 5)',
    'oklch(50% 0.1 20px)',
  ];
  for (const text of refused) {
    it(`refuses ${text || 'nothing'}`, async () => {
      expect(computed(text)).toBeNull();
      const reference = await browserComputed(
        `<!doctype html><body><p style="background-color: lime; background-color: ${text}">`,
        ['background-color'],
      );
      if (reference) expect(reference[3][0]).toBe('rgb(0, 255, 0)');
    });
  }

  it('knows the system colours of both schemes as Chromium has them', async () => {
    for (const scheme of ['light', 'dark'] as const) {
      for (const [name, values] of SYSTEM_COLORS) {
        expect(computed(name, scheme))
          .withContext(name)
          .toBe(values[scheme === 'light' ? 0 : 1]);
      }
      const names = [...SYSTEM_COLORS.keys()].filter((name) => !name.startsWith('-webkit-focus'));
      const reference = await browserComputed(
        `<!doctype html><body style="color-scheme: ${scheme}">${names.map((name) => `<i style="color: ${name}"></i>`).join('')}`,
        ['color'],
      );
      if (reference)
        names.forEach((name, i) =>
          expect(computed(name, scheme))
            .withContext(`${name} ${scheme}`)
            .toBe(reference[3 + i][0]),
        );
    }
  });
});
