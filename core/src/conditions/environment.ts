/** What media queries ask about. */
export interface MediaEnvironment {
  /** Viewport, in CSS px. */
  readonly width: number;
  readonly height: number;
  readonly colorScheme: 'light' | 'dark';
  readonly reducedMotion: boolean;
  readonly contrast: 'no-preference' | 'more' | 'less';
  readonly forcedColors: boolean;
  readonly hover: boolean;
  readonly pointer: 'none' | 'coarse' | 'fine';
  /** Device pixels per CSS px. */
  readonly resolution: number;
  readonly type: 'screen' | 'print';
}

/** A desktop screen with a mouse. */
export const DESKTOP: MediaEnvironment = {
  width: 1280,
  height: 800,
  colorScheme: 'light',
  reducedMotion: false,
  contrast: 'no-preference',
  forcedColors: false,
  hover: true,
  pointer: 'fine',
  resolution: 1,
  type: 'screen',
};

/** An answer that may depend on layout, which is not known here. */
export type Ternary = boolean | 'undecided';

export function not(value: Ternary): Ternary {
  return value === 'undecided' ? value : !value;
}

export function and(values: readonly Ternary[]): Ternary {
  if (values.includes(false)) return false;
  return values.includes('undecided') ? 'undecided' : true;
}

export function or(values: readonly Ternary[]): Ternary {
  if (values.includes(true)) return true;
  return values.includes('undecided') ? 'undecided' : false;
}

/** Where a page is looked at: a viewport width in CSS px, and what else differs from a desktop screen. */
export type Setting = Partial<MediaEnvironment> & Pick<MediaEnvironment, 'width'>;
