import { message, type Message } from '../message/message.js';
import { RATIOS } from '../color/contrast.js';
import { hexOf } from '../color/read-notation.js';
import { decidingDeclaration } from '../census/paintings.js';
import { showsText } from '../resolve/text-figures.js';
import { nameTold } from '../selectors/describe-element.js';
import type { Reading, ReadKind } from '../verdict/legibility.js';
import { jobOf, type Job } from '../match/job.js';
import { homeKey, placeAt, type Looked } from './looked.js';
import type { ProofKind } from './proof-finding.js';

/** What each kind of reading is called, and the longhand that decides it. */
const KINDS: Readonly<
  Record<ReadKind, { readonly what: Message; readonly property: string; readonly kind: ProofKind }>
> = {
  text: { what: message('proof.text-of'), property: 'color', kind: 'reads' },
  placeholder: { what: message('proof.placeholder'), property: 'color', kind: 'reads' },
  selection: { what: message('proof.selected-text-of'), property: 'color', kind: 'reads' },
  sign: { what: message('proof.sign'), property: 'color', kind: 'seen' },
  edge: { what: message('proof.edge'), property: 'border-color', kind: 'seen' },
  ring: { what: message('proof.focus-ring'), property: 'outline-color', kind: 'seen' },
};
/** Pseudo-elements that hold something to be read. */
export const READ_PSEUDOS = ['', 'before', 'after', 'marker', 'placeholder', 'selection'] as const;

/** Holds what is read and seen of an element against what lies behind it. Source: WCAG 2.2, 1.4.3 and 1.4.11. */
export function lookAtReadings(at: Looked): void {
  const { on, element, view, readings, state, into } = at;
  const isShown = !on.isHidden(view, element);
  if (showsText({ element, pseudo: '' })) into.show(element.number, isShown, state === 'rest' && on.isFirst);
  if (!isShown) return;
  for (const pseudo of READ_PSEUDOS) {
    if (pseudo === 'placeholder' && !element.attributes.has('placeholder')) continue;
    if ((pseudo === 'before' || pseudo === 'after') && !view.generates(element, pseudo)) continue;
    if (pseudo === 'marker' && view.style(element).resolved('display') !== 'list-item') continue;
    if (pseudo === 'selection' && (state !== 'rest' || !showsText({ element, pseudo: '' }) || !saysOwn(at))) continue;
    for (const reading of readings.of(element, pseudo)) {
      if (reading.kind === 'ring' && isBrowserRing(at)) continue;
      noteReading(at, pseudo, reading);
    }
  }
}

function noteReading(at: Looked, pseudo: string, reading: Reading): void {
  const { on, element, view, into } = at;
  const { what, property } = KINDS[reading.kind];
  // Generated words are read like any others.
  const isRead = reading.kind === 'sign' && reading.wanted > RATIOS.nonText;
  const kind = isRead ? 'reads' : KINDS[reading.kind].kind;
  const partId = on.partIdOf(element);
  into.look(kind, element.number);
  const name = nameTold(element, pseudo === 'placeholder' || pseudo === 'selection' ? '' : pseudo);
  const place = placeAt(at, pseudo, property);
  if (reading.doubt !== null) {
    into.note({
      kind,
      level: 'look',
      cause: `doubt|${reading.kind}|${reading.doubt.code}|${partId ?? ''}|${reading.wanted}`,
      what,
      name,
      basis: message('proof.its-contrast-hangs-picture', {
        doubt: reading.doubt,
      }),
      figure: null,
      needed: reading.wanted,
      unit: 'none',
      place,
      mend: null,
    });
    return;
  }
  if (reading.ratio >= reading.wanted) return;
  const [ink, ground] = [hexOf(reading.ink), hexOf(reading.ground)];
  const longhand = property === 'border-color' ? 'border-top-color' : property;
  const { style, decided } = decidingDeclaration(view.style(element, pseudo), longhand);
  into.note({
    kind,
    level: 'fails',
    cause: [reading.kind, homeKey({ decided, style, property }), ink].join('|'),
    what,
    name,
    basis: message('proof.reads-basis', {
      ink,
      ground,
      wanted: reading.wanted,
      asked: askedOf(reading, isRead),
      by: HELD[reading.by],
    }),
    figure: reading.ratio,
    needed: reading.wanted,
    unit: 'ratio',
    place,
    mend: { kind: 'recolour', property, ink, grounds: [ground], job: jobFor(at, pseudo, reading.kind) },
  });
}

/** What it was held against. */
const HELD: Readonly<Record<Reading['by'], Message>> = {
  boxes: message('proof.held-against-what-painted'),
  chain: message('proof.held-against-fills-its'),
};

function askedOf({ kind, wanted }: Reading, isRead: boolean): Message {
  if (kind === 'text' && wanted < RATIOS.text) return message('proof.large-text');
  return isRead ? message('proof.text') : KIND_WORDS[kind];
}

const KIND_WORDS: Readonly<Record<ReadKind, Message>> = {
  text: message('proof.text'),
  placeholder: message('proof.a-placeholder'),
  selection: message('proof.selected-text'),
  sign: message('proof.what-control-told'),
  edge: message('proof.edge-control'),
  ring: message('proof.a-focus-ring'),
};

/** Whether the page says itself how selected text looks here; else it is the browser's and the visitor's. */
function saysOwn({ view, element }: Looked): boolean {
  return view.style(element, 'selection').blocks.some(({ origin }) => origin === 'author');
}

/** Whether the ring is drawn by the browser as it likes, which WCAG 2.2 (1.4.11) excepts. */
function isBrowserRing({ view, element }: Looked): boolean {
  return decidingDeclaration(view.style(element), 'outline-style').decided?.block.origin !== 'author';
}

function jobFor({ view, element }: Looked, pseudo: string, kind: ReadKind): Job {
  switch (kind) {
    case 'edge':
      return 'frame';
    case 'ring':
      return 'ring';
    case 'sign':
      return 'icon';
    case 'selection':
      return 'selected';
    case 'placeholder':
      return 'placeholder';
    case 'text':
      return jobOf(view, element, { use: 'text', pseudo, property: 'color', index: 0 });
  }
}
