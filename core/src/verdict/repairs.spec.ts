import ColorJs from 'colorjs.io';
import { planAll, withOverrides } from '../plan/plan-override.js';
import { elementOf, pageOf, viewIn } from '../site/site-model.js';
import { fulfil, numberOn, openOnePage } from '../testing/one-page-site.js';
import type { OverrideValue } from '../veneer/override-value.js';
import type { Palette } from '../veneer/palette.js';
import { judgeInWords } from '../testing/in-words.js';

const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Willow', css: '#b4582a' },
    { id: 2, name: 'Mist', css: '#dfe6e2' },
  ],
  roles: [{ role: 'accent', swatchId: 1, shade: 0 }],
};

// Ratios are held against colorjs.io; 4.5 and 3 are those of WCAG 2.2, 1.4.3.
describe('a text that fails on its ground', () => {
  const rows: readonly (readonly [
    what: string,
    ground: string,
    size: string,
    value: OverrideValue,
    label: string | null,
  ])[] = [
    ['a role on paper', '#f8f3e8', '16px', { kind: 'role', role: 'accent', shade: 0 }, 'Accent, 6 darker'],
    ['a swatch on black', '#000000', '16px', { kind: 'swatch', swatchId: 1, shade: 0 }, 'Willow, 6 lighter'],
    ['a literal on white', '#ffffff', '16px', { kind: 'literal', css: '#888888' }, 'a darker grey'],
    ['a large text that passes', '#f8f3e8', '30px', { kind: 'role', role: 'accent', shade: 0 }, null],
    ['what no shade mends', '#808080', '16px', { kind: 'literal', css: 'inherit' }, null],
  ];
  for (const [what, ground, size, value, label] of rows) {
    it(`${what} is offered ${label ?? 'nothing'}, which passes`, () => {
      const made = fulfil(
        openOnePage(`p { background: ${ground}; color: #555; font-size: ${size} }`, '<p class=t>t</p>', PALETTE),
        '.t',
        { value },
      );
      const contrast = judgeInWords(made.site, made.override, 1280).find(({ text }) => text.endsWith(': 1'));
      const repair = contrast?.repair;
      if (label === null) {
        expect(repair).toBeUndefined();
        return;
      }
      expect(contrast?.standing).toBe('fails');
      if (value.kind !== 'literal') expect(repair?.label).toBe(label);
      const mended = withOverrides(made.site, planAll(made.site, repair?.wishes ?? []));
      const page = pageOf(mended, 1);
      const element = elementOf(page, numberOn(mended, '.t'));
      const color = viewIn(page, element, 'rest', 1280).style(element).resolved('color');
      expect(new ColorJs(ground).contrastWCAG21(color)).toBeGreaterThanOrEqual(4.5);
      expect(new ColorJs(ground).contrastWCAG21(color)).toBeLessThan(7);
    });
  }
});
