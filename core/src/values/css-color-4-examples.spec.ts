import { browserComputed } from '../testing/browser-reference.js';
import { colorOfCss } from '../veneer/palette.js';

/** Source: CSS Color 4, the examples of the sections named, as written there (from memory); what Chromium takes is asked in Karma. */
const ACCEPTED: Readonly<Record<string, readonly string[]>> = {
  '§4 and §5, sRGB': [
    'lime',
    'rgb(0 255 0)',
    'rgb(0% 100% 0%)',
    '#0f0',
    '#00ff00',
    '#0f0f',
    '#00ff00ff',
    '#cc0000',
    '#c00',
    '#00ff0080',
    '#cf0',
    '#3b8',
    'rgb(29 164 192 / 95%)',
    'rgb(0, 255, 0)',
    'rgb(0%, 100%, 0%)',
    'rgba(0, 0, 255, 0.5)',
    'rgba(0, 0, 255, 50%)',
    'rgb(0 0 100%)',
    'rgb(2.5 100 250.75)',
    'rgb(300 -20 0)',
    'RGB(146.064 107.457 131.223)',
    'rgb(none 0 0)',
    'rgb(0 0 0 / none)',
    'rgba(255 0 0 / 1)',
  ],
  '§6, named, system and special colours': [
    'rebeccapurple',
    'transparent',
    'CornflowerBlue',
    'Canvas',
    'CanvasText',
    'LinkText',
    'VisitedText',
    'ActiveText',
    'ButtonFace',
    'ButtonText',
    'ButtonBorder',
    'Field',
    'FieldText',
    'Highlight',
    'HighlightText',
    'SelectedItem',
    'SelectedItemText',
    'Mark',
    'MarkText',
    'GrayText',
    'AccentColor',
    'AccentColorText',
    'currentcolor',
  ],
  '§7 and §8, HSL and HWB': [
    'hsl(120deg 100% 25%)',
    'hsl(0 100% 50%)',
    'hsl(30 100% 50%)',
    'hsl(60deg 100% 50%)',
    'hsl(120 100% 50% / 25%)',
    'hsl(120, 75%, 85%)',
    'hsla(120, 100%, 50%, 0.25)',
    'hsl(0.333turn 100% 50%)',
    'hsl(2.0944rad 100% 50%)',
    'hsl(133.333grad 100% 50%)',
    'hsl(none 0% 50%)',
    'hsl(180 100 50)',
    'hsl(-120 100% 25%)',
    'hwb(150 20% 10%)',
    'hwb(150 20 10)',
    'hwb(90deg 10% 10% / 0.5)',
    'hwb(none 60% 40%)',
    'hwb(40deg 80% 80%)',
  ],
  '§9, Lab, LCH, Oklab, OKLCH': [
    'lab(29.2345% 39.3825 20.0664)',
    'lab(52.2345% 40.1645 59.9971)',
    'lab(60.2345% -5.3654 58.956)',
    'lab(62.2345% -34.9638 47.7721)',
    'lab(67.5345% -8.6911 -41.6019)',
    'lab(29.69% 44.888% -29.04%)',
    'lab(50 none -10 / 40%)',
    'lab(1000 0 0)',
    'lch(29.2345% 44.2 27)',
    'lch(52.2345% 72.2 56.2)',
    'lch(60.2345% 59.2 95.2)',
    'lch(62.2345% 59.2 126.2)',
    'lch(67.5345% 42.5 258.2)',
    'lch(29.69% 45.553% 327.1)',
    'lch(50 30 0.5turn)',
    'oklab(40.101% 0.1147 0.0453)',
    'oklab(59.686% 0.1009 0.1192)',
    'oklab(0.65125 -0.0320 0.1274)',
    'oklab(66.016% -0.1084 0.1114)',
    'oklab(72.322% -0.0465 -0.1150)',
    'oklab(0.5 -20% 30% / 0.5)',
    'oklch(40.101% 0.12332 21.555)',
    'oklch(59.686% 0.15619 49.7694)',
    'oklch(0.65125 0.13138 104.097)',
    'oklch(0.66016 0.15546 134.231)',
    'oklch(72.322% 0.12403 247.996)',
    'oklch(70% 50% 120deg / 80%)',
    'oklch(0.7 0 none)',
  ],
  '§10, color()': [
    'color(display-p3 -0.6112 1.0079 -0.2192)',
    'color(prophoto-rgb 0.42467 0.25 0.36)',
    'color(rec2020 0.42210 0.47580 0.03760)',
    'color(srgb 0 0.5 none)',
    'color(srgb-linear 0.435 0.017 0.055)',
    'color(a98-rgb 0.44091 0.49971 0.37408)',
    'color(xyz-d50 0.2005 0.14089 0.4472)',
    'color(xyz-d65 0.21661 0.14602 0.59452)',
    'color(xyz 0.21661 0.14602 0.59452)',
    'color(display-p3 50% 20% 0% / 30%)',
    'color(rec2020 1 0 0 / none)',
  ],
};

/** What the grammar of CSS Color 4 leaves out. */
const REFUSED = [
  'rgb(0 255, 0)',
  'rgb(0, 255 0)',
  'rgb(0, 255, 0 / 50%)',
  'rgb(0 0)',
  'rgb(0 0 0 0)',
  'rgb(none, 0, 0)',
  '#12',
  '#12345',
  '#1234567',
  '#ggg',
  'hsl(120 100%)',
  'hsl(10px 10% 10%)',
  'hwb(150, 20%, 10%)',
  'lab(50, 1, 2)',
  'lch(50% 30 20px)',
  'oklch(0.5 0.1)',
  'color(nowhere 0 0 0)',
  'color(srgb 1, 0, 0)',
  'color(display-p3 0 0)',
  'color(0 0 0)',
  'rgb(1em 0 0)',
  'notacolour',
  'rgb (0 0 0)',
  'color()',
];

describe('the notations of CSS Color 4', () => {
  const supports = async (text: string): Promise<boolean | null> => {
    const reference = await browserComputed(`<!doctype html><body><p style="background-color: ${text}">`, [
      'background-color',
    ]);
    return reference ? reference[3][0] !== 'rgba(0, 0, 0, 0)' : null;
  };

  for (const [section, examples] of Object.entries(ACCEPTED)) {
    it(`${section}: every example is a colour`, async () => {
      for (const text of examples) {
        expect(colorOfCss(text)).withContext(text).not.toBeNull();
        const isTaken = text === 'transparent' || /\/ none\)$/.test(text) ? true : await supports(text);
        if (isTaken !== null) expect(isTaken).withContext(`${text} in Chromium`).toBe(true);
      }
    });
  }

  it('what the grammar leaves out is none', async () => {
    for (const text of REFUSED) {
      expect(colorOfCss(text)).withContext(text).toBeNull();
      const isTaken = await supports(text);
      if (isTaken !== null) expect(isTaken).withContext(`${text} in Chromium`).toBe(false);
    }
  });
});
