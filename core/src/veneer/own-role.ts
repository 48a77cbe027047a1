import { message, type Message } from '../message/message.js';
import { ROLE_NAMES, type OwnRole, type Palette, type RoleName, type StandardRole } from './palette.js';
import { capital } from '../text/capital.js';

const OWN = 'own-';
const MOST_LETTERS = 40;

/** Names of roles: those of the product, and a designer's own, words in any script joined by hyphens. */
export const ROLE_NAME = new RegExp(`^(?:${ROLE_NAMES.join('|')}|own(?:-[\\p{L}\\p{M}\\p{N}]+){1,8})$`, 'u');

/** Whether a role is one of the product's own fourteen. */
export function isStandardRole(role: RoleName): role is StandardRole {
  return (ROLE_NAMES as readonly string[]).includes(role);
}

/** The role that a designer's word stands for: one of the fourteen where it is its name, else one of their own; `null` for no word. */
export function roleNamed(label: string): RoleName | null {
  const words = label
    .normalize('NFC')
    .toLowerCase()
    .split(/[^\p{L}\p{M}\p{N}]+/u)
    .filter((word) => word !== '')
    .slice(0, 8);
  const name = words.join('-').slice(0, MOST_LETTERS).replace(/-$/, '');
  if (name === '') return null;
  return ROLE_NAMES.find((role) => role === name) ?? (`${OWN}${name}` as OwnRole);
}

/** A role as it is told: one of the fourteen by its code, a designer's own as they called it. */
export function roleTold(role: RoleName): Message {
  if (isStandardRole(role)) return message(`role.${role}`);
  return message('plain', { text: capital(roleWords(role)) });
}

/** A role in the words of the sheet, in every language the same: `soft ink`, `link hover`. */
export function roleWords(role: RoleName): string {
  return (role.startsWith(OWN) ? role.slice(OWN.length) : role).replaceAll('-', ' ');
}

/** A designer's own roles of a palette, by name. */
export function ownRolesOf({ roles }: Palette): readonly RoleName[] {
  return roles.flatMap(({ role }) => (isStandardRole(role) ? [] : [role])).sort((a, b) => (a < b ? -1 : 1));
}

/** All roles in the order they are shown: the fourteen, then a designer's own. */
export function rolesInOrder(palette: Palette): readonly RoleName[] {
  return [...ROLE_NAMES, ...ownRolesOf(palette)];
}

/** What is there by role. */
export function roleEntries<Value>(of: Readonly<Partial<Record<RoleName, Value>>>): [RoleName, Value][] {
  return Object.entries(of).flatMap(([role, value]): [RoleName, Value][] =>
    value === undefined ? [] : [[role as RoleName, value]],
  );
}
