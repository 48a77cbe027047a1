import { errorText } from '@upper-veneer/words';
import { isMessage, message, type Message } from '../../message/message.js';
import { hexOf } from '../../color/read-notation.js';
import { channelsIn } from '../../values/convert-color.js';
import { colorOfValue } from '../../veneer/override-value.js';
import { namesOf } from '../../veneer/palette-names.js';
import { isStandardRole, roleNamed } from '../../veneer/own-role.js';
import { colorOfCss, type Palette, type RoleFill, type RoleName } from '../../veneer/palette.js';
import { withDistinctNames, type NamedColor, type PaletteFile } from './named-color.js';

/** Colour spaces of the Color Module, with the CSS that names them; `%` marks components written as percentages there. */
const SPACES: ReadonlyMap<string, (components: readonly string[]) => string> = new Map([
  ...['srgb', 'srgb-linear', 'display-p3', 'a98-rgb', 'prophoto-rgb', 'rec2020', 'xyz-d65', 'xyz-d50'].map(
    (space) => [space, (c: readonly string[]) => `color(${space} ${c.join(' ')}`] as const,
  ),
  ...['lab', 'lch', 'oklab', 'oklch'].map(
    (space) => [space, (c: readonly string[]) => `${space}(${c.join(' ')}`] as const,
  ),
  ...['hsl', 'hwb'].map(
    (space) =>
      [
        space,
        ([h, ...rest]: readonly string[]) =>
          `${space}(${h} ${rest.map((value) => (value === 'none' ? value : `${value}%`)).join(' ')}`,
      ] as const,
  ),
]);

type Json = Readonly<Record<string, unknown>>;

const isGroup = (value: unknown): value is Json => typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * Reads the colour tokens of a design tokens file; aliases and other types are passed over, but for aliases that lead nowhere.
 * Source: W3C Design Tokens Community Group, Format and Color Modules 2025.10; plain hex strings, as earlier drafts had them, are read as well.
 */
export function readDesignTokens(text: string): PaletteFile {
  let root: unknown;
  try {
    root = JSON.parse(text.replace(/^\ufeff/, ''));
  } catch (error) {
    return {
      colors: [],
      problems: [
        {
          where: message('file.file'),
          reason: message('file.not-json', { error: errorText(error) }),
        },
      ],
    };
  }
  if (!isGroup(root))
    return { colors: [], problems: [{ where: message('file.file'), reason: message('file.design-tokens-file-json') }] };
  const tokens = new Map<string, { readonly type: string; readonly value: unknown }>();
  collect(root, [], '', tokens);
  const colors: NamedColor[] = [];
  const problems: { where: Message | string; reason: Message }[] = [];
  for (const [path, token] of tokens) {
    const target = follow(path, tokens);
    if (isMessage(target)) {
      // An alias without a type may be of any; one that leads nowhere is said whatever it is.
      if (token.type === 'color' || token.type === '') problems.push({ where: path, reason: target });
      continue;
    }
    // An alias gives a colour of the file another job; it is no colour of its own.
    if (target.type !== 'color' || target !== token) continue;
    const css = cssOf(target.value);
    if (css === null)
      problems.push({
        where: path,
        reason: message('file.no-colour-value', { value: JSON.stringify(target.value)?.slice(0, 60) ?? 'nothing' }),
      });
    else colors.push({ name: nameOf(path), css });
  }
  return { colors: withDistinctNames(colors), problems };
}

/** A palette out of a design tokens file: its colours as swatches, and the aliases and values that are named as roles are. */
export function readTokenPalette(text: string): {
  readonly palette: Palette;
  readonly problems: PaletteFile['problems'];
} {
  const { colors, problems } = readDesignTokens(text);
  if (problems.length > 0) return { palette: { swatches: [], roles: [] }, problems };
  const tokens = new Map<string, { readonly type: string; readonly value: unknown }>();
  const root: unknown = JSON.parse(text.replace(/^\ufeff/, ''));
  if (isGroup(root)) collect(root, [], '', tokens);
  const swatches = colors.map(({ name, css }, i) => ({ id: i + 1, name, css }));
  const roles = new Map<RoleName, RoleFill>();
  for (const path of tokens.keys()) {
    const names = path.split('.');
    const named = roleNamed(names.at(-1) ?? '') ?? undefined;
    // A role of one's own is told by the group it stands in.
    const role = named && (isStandardRole(named) || /^roles?$/i.test(names.at(-2) ?? '')) ? named : undefined;
    const target = follow(path, tokens);
    const css = role !== undefined && !isMessage(target) && target.type === 'color' ? cssOf(target.value) : null;
    const swatch = css === null ? undefined : swatches.find((own) => own.css === css);
    if (role !== undefined && swatch && !roles.has(role)) roles.set(role, { role, swatchId: swatch.id, shade: 0 });
  }
  return { palette: { swatches, roles: [...roles.values()] }, problems };
}

function collect(
  group: Json,
  path: readonly string[],
  inherited: string,
  into: Map<string, { readonly type: string; readonly value: unknown }>,
): void {
  const type = typeof group['$type'] === 'string' ? group['$type'] : inherited;
  if (Object.hasOwn(group, '$value')) {
    into.set(path.join('.'), { type, value: group['$value'] });
    return;
  }
  // Deeper than any real file; a hostile one must not use the stack up.
  if (path.length > 40) return;
  for (const [name, child] of Object.entries(group))
    if (!name.startsWith('$') && isGroup(child)) collect(child, [...path, name], type, into);
}

/** The token an alias leads to, or why it leads nowhere. */
function follow(
  start: string,
  tokens: ReadonlyMap<string, { readonly type: string; readonly value: unknown }>,
): { readonly type: string; readonly value: unknown } | Message {
  const seen = new Set<string>();
  let path = start;
  for (;;) {
    const token = tokens.get(path);
    if (!token) return message('file.not-file', { path });
    const alias = typeof token.value === 'string' ? /^\{(.+)\}$/.exec(token.value)?.[1] : undefined;
    if (alias === undefined) return token;
    if (seen.has(path)) return message('file.leads-round-circle', { alias });
    seen.add(path);
    path = alias;
  }
}

function cssOf(value: unknown): string | null {
  if (typeof value === 'string') return colorOfCss(value) ? value.trim().toLowerCase() : null;
  if (!isGroup(value)) return null;
  const write = SPACES.get(String(value['colorSpace']));
  const components = value['components'];
  if (
    !write ||
    !Array.isArray(components) ||
    components.length !== 3 ||
    !components.every((part) => part === 'none' || (typeof part === 'number' && Number.isFinite(part)))
  )
    return null;
  const alpha = value['alpha'] ?? 1;
  if (typeof alpha !== 'number' || alpha < 0 || alpha > 1) return null;
  const color = colorOfCss(`${write(components.map(String))}${alpha < 1 ? ` / ${alpha}` : ''})`);
  if (!color) return null;
  // What sRGB holds is kept in the short notation; the rest keeps its space.
  const inside = channelsIn(color, 'srgb').every((channel) => channel >= -0.0005 && channel <= 1.0005);
  return inside ? hexOf(color) : `${write(components.map(String))}${alpha < 1 ? ` / ${alpha}` : ''})`;
}

function nameOf(path: string): string {
  const steps = path.split('.');
  const last = steps[steps.length - 1];
  // A bare step such as `500` says nothing without its group.
  const name = /^\d+$/.test(last) && steps.length > 1 ? `${steps[steps.length - 2]} ${last}` : last;
  return name.replace(/[-_]+/g, ' ').trim() || path;
}

/** Writes swatches and roles as a design tokens file; a role is an alias of its swatch, or a value where it is a shade of it. */
export function writeDesignTokens(palette: Palette): string {
  const valueOf = (css: string): object => {
    const color = colorOfCss(css);
    const channels = color ? channelsIn(color, 'srgb') : [0, 0, 0];
    const alpha = color?.alpha ?? 1;
    return {
      colorSpace: 'srgb',
      components: channels.map((channel) => Number(Math.min(1, Math.max(0, channel)).toFixed(4))),
      ...(alpha < 1 ? { alpha } : {}),
      hex: color ? hexOf({ ...color, alpha: 1 }) : '#000000',
    };
  };
  const { swatches: swatchNames } = namesOf(palette);
  const swatch = Object.fromEntries(
    palette.swatches.map(({ name, css }, i) => [swatchNames[i], { $value: valueOf(css), $description: name }]),
  );
  const role = Object.fromEntries(
    palette.roles.flatMap(({ role: name, swatchId, shade }) => {
      const at = palette.swatches.findIndex(({ id }) => id === swatchId);
      const base = palette.swatches[at];
      const color = colorOfValue({ kind: 'role', role: name, shade: 0 }, palette);
      if (!base || !color) return [];
      return [
        [
          name,
          shade === 0
            ? { $value: `{swatch.${swatchNames[at]}}` }
            : {
                $value: valueOf(hexOf(color)),
                $description: `${base.name}, ${Math.abs(shade)} ${shade < 0 ? 'darker' : 'lighter'}`,
              },
        ],
      ];
    }),
  );
  return `${JSON.stringify({ swatch: { $type: 'color', ...swatch }, role: { $type: 'color', ...role } }, null, 2)}\n`;
}
