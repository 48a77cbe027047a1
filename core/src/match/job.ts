import { message, type Message } from '../message/message.js';
import type { Painting } from '../census/paintings.js';
import type { ElementNode } from '../dom/tree.js';
import type { StyleView } from '../resolve/style-view.js';
import { kindOf } from '../selectors/alike.js';

/** What a colour does where it is painted. */
export const JOBS = [
  'ground',
  'action',
  'field',
  'text',
  'heading',
  'link',
  'label',
  'entry',
  'placeholder',
  'line',
  'frame',
  'ring',
  'icon',
  'caret',
  'accent',
  'shadow',
  'highlight',
  'selected',
  'thumb',
  'track',
] as const;
export type Job = (typeof JOBS)[number];

/** Jobs of fills, which others are read and seen on. */
export const FILL_JOBS: ReadonlySet<Job> = new Set<Job>(['ground', 'action', 'field']);
/** Jobs of what is read. */
export const READ_JOBS: ReadonlySet<Job> = new Set<Job>(['text', 'heading', 'link', 'label', 'entry', 'placeholder']);

/** What a job is called, as in `fill of an action`. */
export function jobMessage(job: Job): Message {
  return message(`match.job.${job}`);
}

/** What a painted colour does: by what it is used for and by what stands around it. */
export function jobOf(
  view: StyleView,
  element: ElementNode,
  { use, pseudo, property, index }: Pick<Painting, 'use' | 'pseudo' | 'property' | 'index'>,
): Job {
  if (pseudo === 'selection') return property === 'color' ? 'selected' : 'highlight';
  if (pseudo === '-webkit-scrollbar-thumb') return 'thumb';
  if (pseudo === '-webkit-scrollbar-track') return 'track';
  if (property === 'scrollbar-color') return index === 0 ? 'thumb' : 'track';
  if (property === 'caret-color') return 'caret';
  if (property === 'accent-color') return 'accent';
  switch (use) {
    case 'shadow':
      return 'shadow';
    case 'ring':
      return 'ring';
    case 'icon':
      return 'icon';
    case 'edge':
      return isControl(view, element) && pseudo === '' ? 'frame' : 'line';
    case 'fill':
    case 'gradient':
      if (pseudo !== '') return 'ground';
      return kindOf(element) === 'field' ? 'field' : actionAround(view, element) === element ? 'action' : 'ground';
    case 'text':
      if (pseudo === 'placeholder') return 'placeholder';
      return property === 'text-decoration-color' && kindOf(element) === 'link' ? 'link' : textJob(view, element);
  }
}

function textJob(view: StyleView, element: ElementNode): Job {
  if (actionAround(view, element)) return 'label';
  let job: Job = 'text';
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    const kind = kindOf(node);
    if (kind === 'field') return 'entry';
    if (kind === 'link') job = 'link';
    else if (kind === 'heading' && job === 'text') job = 'heading';
  }
  return job;
}

function isControl(view: StyleView, element: ElementNode): boolean {
  return kindOf(element) === 'field' || actionAround(view, element) === element;
}

/** The button an element is or stands in, or the link that is drawn as one by a fill of its own. */
export function actionAround(view: StyleView, element: ElementNode): ElementNode | null {
  for (let node: ElementNode | null = element; node; node = node.flatParent) {
    const kind = kindOf(node);
    if (kind === 'button' || (kind === 'link' && hasFill(view, node))) return node;
  }
  return null;
}

/** Whether an element paints a fill or a gradient that can be seen. */
export function hasFill(view: StyleView, element: ElementNode): boolean {
  const style = view.style(element);
  return (style.color('background-color')?.alpha ?? 0) > 0.05 || /gradient\(/.test(style.resolved('background-image'));
}
