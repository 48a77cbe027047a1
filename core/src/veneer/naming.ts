import type { RoleName } from './palette.js';

/** How the palette's colours are named in the sheet. */
export interface Naming {
  /** Prefix of the custom properties, without hyphens. */
  readonly prefix: string;
  /** Whether colours are written as plain values, for hosts that take no custom properties. */
  readonly asValues?: boolean;
  /** An older engine that is to be reached, in words; where one is named, no `color-mix()` is written. */
  readonly flatFor?: string;
  /** Names of roles that differ from their own, without prefix. */
  readonly names?: Readonly<Partial<Record<RoleName, string>>>;
}
