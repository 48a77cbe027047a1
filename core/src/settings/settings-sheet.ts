import type { Becomes } from '../match/proposal.js';
import type { Strategy } from '../match/fitness.js';

/** How a maker's field wants its value: hex with `#`, hex without, three numbers of 0–255, one of the maker's presets, or a length. */
export const SETTING_NOTATIONS = ['hex', 'bare-hex', 'three-numbers', 'preset', 'px'] as const;
export type SettingNotation = (typeof SETTING_NOTATIONS)[number];

/** What a field can change on a surface: the jobs of Match that a maker names, and what is no colour. */
export const SETTING_JOBS = [
  'ground',
  'action',
  'field',
  'text',
  'heading',
  'link',
  'label',
  'entry',
  'placeholder',
  'icon',
  'line',
  'frame',
  'ring',
  'shadow',
  'corner',
  'edge-width',
] as const;
export type SettingJob = (typeof SETTING_JOBS)[number];

/** States a maker's field can be for. `active` is pressed; `current` is the current page. */
export const SETTING_STATES = [
  'rest',
  'visited',
  'hover',
  'focus',
  'active',
  'current',
  'checked',
  'disabled',
] as const;
export type SettingState = (typeof SETTING_STATES)[number];

/** One place that a field changes. */
export interface SettingPlace {
  /** Surface in plain words, such as `head of the window`: what fills it and what stands on it meet there. */
  readonly surface: string;
  readonly job: SettingJob;
  readonly state: SettingState;
  /** Where that is in the part's own captured document; empty where nobody said. */
  readonly selector: string;
  /** Property that takes the value there; empty for those that paint such a job. */
  readonly property: string;
}

/** One of the maker's presets. */
export interface SettingPreset {
  readonly name: string;
  /** Colour it stands for, as CSS. */
  readonly css: string;
}

/** A field as the maker offers it. */
export interface SettingField {
  readonly id: string;
  /** The maker's name for it. */
  readonly name: string;
  readonly notation: SettingNotation;
  /** Of a field of that notation; else empty. */
  readonly presets: readonly SettingPreset[];
  /** What stands in it over there, as it is written there; empty where nobody knows. */
  readonly present: string;
  readonly places: readonly SettingPlace[];
}

/** What no field reaches, in the colour it has. */
export interface FixedPlace extends SettingPlace {
  /** Colour as CSS; empty where nobody knows. */
  readonly css: string;
}

/** A value as it was handed over. */
export interface HandedValue {
  readonly text: string;
  /** ISO 8601, UTC. */
  readonly at: string;
}

/** The fields a part's maker offers, and what is settled of filling them. */
export interface SettingsSheet {
  readonly partId: number;
  /** In the maker's order. */
  readonly fields: readonly SettingField[];
  readonly fixed: readonly FixedPlace[];
  /** The part's own captured document, by its path in the site; empty where there is none. */
  readonly document: string;
  /** Where the maker takes values by a request; empty where they are typed. */
  readonly address: string;
  readonly strategy: Strategy;
  /** Fields set by hand, by id: a value, or left alone. */
  readonly settled: Readonly<Record<string, Becomes>>;
  /** Fields that must stay equal: each list is given one value. */
  readonly equal: readonly (readonly string[])[];
  /** What was handed over of each field last, by id. */
  readonly handed: Readonly<Record<string, HandedValue>>;
}

/** Fields a sheet holds, at most, and places a field. */
export const MOST_FIELDS = 60;
export const MOST_PLACES = 24;

export function isLengthJob(job: SettingJob): job is 'corner' | 'edge-width' {
  return job === 'corner' || job === 'edge-width';
}
