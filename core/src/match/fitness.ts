import type { RoleName, StandardRole } from '../veneer/palette.js';
import type { Job } from './job.js';

/** Which strategy a scope is matched by. */
export const STRATEGIES = ['blend', 'stand-out'] as const;
export type Strategy = (typeof STRATEGIES)[number];

/**
 * What it costs, 0–1, to give a job to a role: 0 where the role is there for it. What is not listed costs `UNUSUAL`.
 * Source: the jobs of the roles in the product's own description; the order among what is not meant is common practice.
 */
export const ROLE_COSTS: Readonly<Record<Job, Readonly<Partial<Record<StandardRole, number>>>>> = {
  ground: { ground: 0, panel: 0.05, ink: 0.45, second: 0.45, accent: 0.5, line: 0.4, signal: 0.6, 'soft-ink': 0.6 },
  action: { accent: 0, second: 0.12, link: 0.4, ink: 0.35, panel: 0.4, ground: 0.45, line: 0.4, 'soft-ink': 0.45 },
  field: { ground: 0, panel: 0.02, line: 0.6 },
  text: {
    ink: 0,
    'soft-ink': 0.1,
    ground: 0.3,
    'on-accent': 0.25,
    'on-second': 0.25,
    panel: 0.35,
    accent: 0.45,
    second: 0.45,
    link: 0.5,
  },
  heading: {
    ink: 0,
    second: 0.15,
    accent: 0.2,
    ground: 0.3,
    'on-accent': 0.25,
    'on-second': 0.25,
    'soft-ink': 0.3,
    link: 0.4,
  },
  link: {
    link: 0,
    accent: 0.15,
    ink: 0.3,
    'soft-ink': 0.35,
    second: 0.3,
    ground: 0.4,
    'on-accent': 0.3,
    'on-second': 0.3,
  },
  label: {
    'on-accent': 0,
    'on-second': 0.02,
    'on-signal': 0.1,
    ink: 0.12,
    ground: 0.15,
    accent: 0.25,
    link: 0.3,
    panel: 0.25,
    second: 0.3,
  },
  entry: { ink: 0, 'soft-ink': 0.15 },
  placeholder: { 'soft-ink': 0, ink: 0.2 },
  line: { line: 0, 'soft-ink': 0.3, accent: 0.35, second: 0.35, panel: 0.35, ink: 0.35, ground: 0.45 },
  frame: { line: 0, accent: 0.12, 'soft-ink': 0.2, ink: 0.25, second: 0.2, ring: 0.3 },
  ring: { ring: 0, accent: 0.15, link: 0.2, ink: 0.3 },
  icon: {
    ink: 0.1,
    accent: 0.1,
    'soft-ink': 0.12,
    link: 0.12,
    second: 0.2,
    line: 0.3,
    'on-accent': 0.2,
    'on-second': 0.2,
    ground: 0.3,
  },
  caret: { ink: 0, accent: 0.1, link: 0.2, second: 0.25 },
  accent: { accent: 0, second: 0.15, link: 0.25, ink: 0.35 },
  shadow: { ink: 0.25, accent: 0.2, second: 0.22, ring: 0.3, line: 0.4, panel: 0.35, ground: 0.35 },
  highlight: { second: 0, accent: 0.05, link: 0.1, ring: 0.15, ink: 0.3, line: 0.3, panel: 0.4, ground: 0.5 },
  selected: { 'on-second': 0, 'on-accent': 0.02, ink: 0.05, ground: 0.1, panel: 0.15 },
  thumb: { line: 0, 'soft-ink': 0.05, accent: 0.1, second: 0.1, ring: 0.2, ink: 0.25 },
  track: { panel: 0, ground: 0, line: 0.25 },
};

export const UNUSUAL = 0.9;

/** Roles that say a warning, by job. */
export const WARNING_ROLES: Readonly<Partial<Record<Job, readonly RoleName[]>>> = {
  text: ['signal'],
  heading: ['signal'],
  link: ['signal'],
  entry: ['signal'],
  frame: ['signal'],
  line: ['signal'],
  icon: ['signal'],
  ring: ['signal'],
  action: ['signal'],
  ground: ['signal'],
  label: ['on-signal'],
};

/** How much a difference in OKLCH lightness (0–1) counts beside use: grounds hold the page's light and dark. */
export const LIGHTNESS_WEIGHT: Readonly<Record<Job, number>> = {
  ground: 1.5,
  action: 0.35,
  field: 1.2,
  text: 0.6,
  heading: 0.5,
  link: 0.3,
  label: 0.4,
  entry: 0.5,
  placeholder: 0.4,
  line: 0.8,
  frame: 0.5,
  ring: 0.2,
  icon: 0.5,
  caret: 0.1,
  accent: 0.2,
  shadow: 1,
  highlight: 0.6,
  selected: 0.5,
  thumb: 0.6,
  track: 1,
};

/** How much a difference in OKLCH chroma counts, taken as a share of `VIVID`. */
export const CHROMA_WEIGHT: Readonly<Record<Job, number>> = {
  ground: 0.5,
  action: 0.35,
  field: 0.3,
  text: 0.25,
  heading: 0.25,
  link: 0.1,
  label: 0.15,
  entry: 0.15,
  placeholder: 0.15,
  line: 0.25,
  frame: 0.2,
  ring: 0.1,
  icon: 0.25,
  caret: 0.05,
  accent: 0.1,
  shadow: 0.2,
  highlight: 0.3,
  selected: 0.15,
  thumb: 0.3,
  track: 0.3,
};

/** ΔE2000 that is just noticed. Source: Mahy, Van Eycken, Oosterlinck 1994. */
export const JUST_NOTICED = 2.3;
/** OKLCH chroma of a plainly coloured thing (common practice). */
export const VIVID = 0.15;
/** What a point of shade away from its role costs: a role itself is preferred. */
export const SHADE_COST = 0.01;
/** And each point times itself. */
export const FAR_SHADE_COST = 0.0004;
/** And that there is one at all. */
export const SHADED_COST = 0.04;
/** What it costs an action that is not the main one to take the accent, and the main one to take anything else. */
export const LEADING_COST = 1;
/** What it costs that two rows which differ come to one value, and that a state's step is another than it was. */
export const MERGED_COST = 0.25;
export const STEP_COST = 0.5;
/** What it costs a state to be of another role than rest, where it was of the same hue. */
export const OTHER_ROLE_COST = 0.35;
/** What a hard condition costs that is not met, with what is lacking on top. */
export const BROKEN_COST = 50;
/** What it costs, at most, that something stays as weak as it was found. */
export const WEAK_COST = 0.6;
/** OKLCH chroma under which a shadow has no colour (common practice). */
export const GREY_SHADOW = 0.03;
