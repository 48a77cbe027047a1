import type { MediaEnvironment } from '../conditions/environment.js';
import type { ElementNode } from '../dom/tree.js';
import type { Color } from '../values/color.js';
import type { ComputedValue } from './computed-value.js';

/** The style around a longhand: what its computed value may depend on. */
export interface StyleSource {
  readonly element: ElementNode;
  readonly pseudo: string;
  readonly environment: MediaEnvironment;
  readonly parent: StyleSource | null;
  readonly root: StyleSource | null;
  /** Stands for the values it comes to. */
  readonly identity: object;
  computed(property: string): ComputedValue;
  fontSize(): number;
  colorScheme(): 'light' | 'dark';
  currentColor(): Color;
  color(property: string): Color | null;
}
