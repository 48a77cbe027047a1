import { say, spoken } from '@upper-veneer/words';
import Reference from 'colorjs.io';
import { hexOf } from '../color/read-notation.js';
import { inner } from '../message/message.js';
import { pairMatrix } from '../palette/pair-matrix.js';
import { readTokenPalette } from '../palette/files/design-tokens.js';
import { foundColors } from '../match/find-colors.js';
import { proposeMatch } from '../match/propose-match.js';
import { fulfil, openOnePage } from '../testing/one-page-site.js';
import { colorOfValue, valueTold } from './override-value.js';
import { ROLE_NAME, roleNamed, roleTold, roleWords, rolesInOrder } from './own-role.js';
import { ROLE_NAMES, paletteIn, type Palette, type RoleName } from './palette.js';

const HEADING = 'own-heading';
const PALETTE: Palette = {
  swatches: [
    { id: 1, name: 'Paper', css: '#f7f3e9' },
    { id: 2, name: 'Ink', css: '#1d2b2a' },
    { id: 3, name: 'River', css: '#0f4a48' },
  ],
  roles: [
    { role: 'ground', swatchId: 1, shade: 0 },
    { role: 'ink', swatchId: 2, shade: 0 },
    { role: HEADING, swatchId: 3, shade: 0 },
  ],
};

describe('a role of the designer’s own', () => {
  it('is named by words in any script; a name of the fourteen is that role', () => {
    expect(roleNamed(' Link  Hover! ')).toBe('own-link-hover');
    expect(roleNamed('Überschrift')).toBe('own-überschrift');
    expect(roleNamed('заголовок')).toBe('own-заголовок');
    expect(roleNamed('Soft ink')).toBe('soft-ink');
    expect(roleNamed(' – ')).toBeNull();
    for (const text of [...ROLE_NAMES, 'own-link-hover', roleNamed('заголовок') ?? ''])
      expect(ROLE_NAME.test(text)).toBeTrue();
    for (const text of ['heading', 'own-', 'own-a b', 'own-a;b', 'own--a', 'own-a}', ''])
      expect(ROLE_NAME.test(text)).toBeFalse();
    expect(roleWords('own-link-hover')).toBe('link hover');
    expect([roleTold('own-link-hover'), inner(roleTold('soft-ink'))].map(say)).toEqual(['Link hover', 'soft ink']);
    expect<readonly string[]>(rolesInOrder(PALETTE)).toEqual([...ROLE_NAMES, HEADING]);
  });

  it('goes out as a custom property of its name, and has its row of pairs', () => {
    const value = { kind: 'role', role: HEADING, shade: 0 } as const;
    const { site } = fulfil(openOnePage('h2 { color: red }', '<h2>Trips</h2>', PALETTE), 'h2', { value });
    expect(site.css).toContain('--brand-heading: #0f4a48;');
    expect(site.css).toContain('color: var(--brand-heading);');
    expect(spoken(valueTold({ palette: PALETTE }, value))).toBe('Heading');
    expect(pairMatrix(PALETTE).some(({ text, ground }) => text === HEADING && ground === 'ground')).toBeTrue();
  });

  // Reference: WCAG 2.2's ratio by colorjs.io.
  it('is derived for the second lighting so that it can be read', () => {
    const palette: Palette = { ...PALETTE, second: { told: { kind: 'scheme' }, roles: [] } };
    const hexIn = (role: RoleName): string => {
      const color = colorOfValue({ kind: 'role', role, shade: 0 }, paletteIn(palette, 'inverted'));
      return color ? hexOf(color) : '';
    };
    expect(hexIn(HEADING)).not.toBe('#0f4a48');
    expect(new Reference(hexIn(HEADING)).contrastWCAG21(new Reference(hexIn('ground')))).toBeGreaterThanOrEqual(4.5);
  });

  it('is taken by Match for what it is called, and for nothing else', () => {
    const site = openOnePage(
      'body { background: #fff } h2 { color: #3322aa } p { color: #222244 }',
      '<h2>Trips</h2><p>By the river</p>',
      PALETTE,
    );
    const scope = { kind: 'site' } as const;
    const { rows } = proposeMatch(site, scope, foundColors(site, scope, 1280), {
      strategy: 'blend',
      locked: {},
      equal: [],
    });
    const roleOf = (job: string): string | null => {
      const becomes = rows.find((row) => row.found.job === job)?.becomes;
      return becomes?.kind === 'value' && becomes.value.kind === 'role' ? becomes.value.role : null;
    };
    expect(roleOf('heading')).toBe(HEADING);
    expect(roleOf('text')).toBe('ink');
  });

  // Reference: the draft of the Design Tokens Community Group for aliases.
  it('is read from a tokens file where it stands among roles', () => {
    const color = { $type: 'color', $value: '#0f4a48' };
    const { palette } = readTokenPalette(
      JSON.stringify({
        swatch: { river: color },
        role: {
          ink: { $type: 'color', $value: '{swatch.river}' },
          'Link hover': { $type: 'color', $value: '{swatch.river}' },
        },
      }),
    );
    expect(palette.roles.map(({ role }) => role).sort()).toEqual(['ink', 'own-link-hover']);
  });
});
