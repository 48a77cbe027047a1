import { say } from '@upper-veneer/words';
import { readFile } from 'node:fs/promises';
import {
  colorOfCss,
  colorOfValue,
  hexOf,
  invertRoles,
  proposeRoles,
  readTokenPalette,
  roleEntries,
  roleWords,
  type Color,
  type Lighting,
  type Palette,
  type RoleName,
} from '@upper-veneer/core';
import { UsageProblem } from './usage-problem.js';

/**
 * Reads a palette with its roles from a design tokens file; roles that nobody fills are derived from ground, ink and accent.
 * @throws {UsageProblem} when it is not there, is no such file, or fills too few roles.
 */
export async function readPalette(path: string, lighting: Lighting): Promise<Palette> {
  const text = await readFile(path, 'utf8').catch(() => {
    throw new UsageProblem(`${path} is not there`);
  });
  const { palette, problems } = readTokenPalette(text);
  if (problems.length > 0)
    throw new UsageProblem(
      `${path}: ${problems.map(({ where, reason }) => `${say(where)}: ${say(reason)}`).join('; ')}`,
    );
  const colorOf = (role: RoleName): string | undefined =>
    palette.swatches.find(({ id }) => id === palette.roles.find((fill) => fill.role === role)?.swatchId)?.css;
  const [ground, ink, accent] = (['ground', 'ink', 'accent'] as const).map((role) => colorOfCss(colorOf(role) ?? ''));
  if (!ground || !ink || !accent)
    throw new UsageProblem(
      `${path} must at least fill the roles ground, ink and accent, by aliases such as "ink": { "$value": "{swatch.night}" }`,
    );
  const light = proposeRoles({ ground, ink, accent }, 'light');
  const filled = new Map(
    palette.roles.map(({ role }) => [role, colorOfValue({ kind: 'role', role, shade: 0 }, palette)]),
  );
  const all = Object.fromEntries(roleEntries<Color>(light).map(([role, color]) => [role, filled.get(role) ?? color]));
  // The second lighting of a palette is derived from the whole of the first.
  const derived: Readonly<Partial<Record<RoleName, Color>>> = lighting === 'light' ? light : invertRoles(all);
  const given = new Set(lighting === 'light' ? palette.roles.map(({ role }) => role) : []);
  const missing = roleEntries(derived).filter(([role]) => !given.has(role));
  const from = Math.max(0, ...palette.swatches.map(({ id }) => id)) + 1;
  return {
    swatches: [
      ...palette.swatches,
      ...missing.map(([role, color], i) => ({ id: from + i, name: roleWords(role), css: hexOf(color) })),
    ],
    roles: [
      ...palette.roles.filter(({ role }) => given.has(role)),
      ...missing.map(([role], i) => ({ role, swatchId: from + i, shade: 0 })),
    ],
  };
}
