import { message, type Message } from '../message/message.js';
import { cellsWith } from './cells.js';
import { inOrder, thingsOf } from './gather-findings.js';
import type { ProofFinding, ProofPlace, Proof, Unseen } from './proof-finding.js';

/** What was read of a text over a picture, at one place of a finding and one width. */
export interface PictureReading {
  readonly findingId: string;
  /** Which of the finding's places. */
  readonly index: number;
  /** Worst contrast at the width, 1–21; `null` where it could not be read. */
  readonly ratio: number | null;
  /** Colour of the text there, and the darkest and lightest of what lies under it, as hex. */
  readonly ink: string;
  readonly under: readonly string[];
  /** CSS px. */
  readonly width: number;
}

/** Whether a finding is of texts over pictures, whose pixels the core has not seen: then nothing was measured of what is asked. */
export function isOverPicture({ kind, figure, needed }: ProofFinding): boolean {
  return kind === 'reads' && figure === null && needed !== null;
}

/**
 * A proof with what the pixels under its texts came to: those that fail are findings with their figure, those that hold are none, and
 * what was not read stays to be looked at, which is said.
 */
export function withPicturesRead(proof: Proof, readings: readonly PictureReading[]): Proof {
  const byFinding = new Map<string, PictureReading[]>();
  for (const reading of readings) {
    const own = byFinding.get(reading.findingId);
    if (own) own.push(reading);
    else byFinding.set(reading.findingId, [reading]);
  }
  const findings = inOrder(
    proof.findings.flatMap((finding) =>
      isOverPicture(finding) ? settle(finding, byFinding.get(finding.id) ?? []) : [finding],
    ),
  );
  const unread = findings.filter(isOverPicture).reduce((sum, finding) => sum + thingsOf(finding), 0);
  return {
    ...proof,
    findings,
    cells: cellsWith(proof.cells, [], findings),
    unseen: unread === 0 ? proof.unseen : [...proof.unseen, unreadOf(unread)],
  };
}

function settle(finding: ProofFinding, readings: readonly PictureReading[]): ProofFinding[] {
  const needed = finding.needed ?? 0;
  const read = worstRead(finding, readings);
  const failing = [...read.values()].filter(({ ratio }) => (ratio ?? 0) < needed);
  failing.sort((a, b) => (a.ratio ?? 0) - (b.ratio ?? 0));
  const left = finding.places.filter((_, i) => !read.has(i));
  const found: ProofFinding[] = [];
  if (failing.length > 0) {
    const places = failing.map(({ index, width }): ProofPlace => {
      const place = finding.places[index];
      return { ...place, setting: { ...place.setting, width } };
    });
    const [worst] = failing;
    found.push({
      ...narrowed(finding, places),
      id: `${finding.id}|read`,
      widths: failingWidths(readings, failing, needed),
      level: 'fails',
      figure: worst.ratio,
      unit: 'ratio',
      basis: message('proof.over-pixels-from-read', {
        ink: worst.ink,
        under: rangeTold(worst.under),
        width: worst.width,
        needed,
        share: shareWords(finding.places.length, read.size, failing.length),
      }),
      mend: { kind: 'over-picture', ink: worst.ink, under: [...new Set(failing.flatMap(({ under }) => under))] },
    });
  }
  if (left.length > 0) found.push(narrowed(finding, left));
  return found;
}

/** Widths at which places that fail do so, the widest first. */
function failingWidths(
  readings: readonly PictureReading[],
  failing: readonly PictureReading[],
  needed: number,
): number[] {
  const indexes = new Set(failing.map(({ index }) => index));
  const widths = readings.filter(({ index, ratio }) => indexes.has(index) && ratio !== null && ratio < needed);
  return [...new Set(widths.map(({ width }) => width))].sort((a, b) => b - a);
}

/** How much of it was read, and what of that holds. */
function shareWords(all: number, read: number, failing: number): Message {
  return message('proof.share-read', { all, read, held: read - failing, part: read === all ? 'all' : 'some' });
}

/** The worst of all widths, by place: of those read at each width, or that fail at one already. */
function worstRead(finding: ProofFinding, readings: readonly PictureReading[]): Map<number, PictureReading> {
  const worst = new Map<number, PictureReading>();
  const widths = new Map<number, number>();
  for (const reading of readings) {
    if (reading.ratio === null) continue;
    const { index, ratio } = reading;
    widths.set(index, (widths.get(index) ?? 0) + 1);
    if (ratio < (worst.get(index)?.ratio ?? Number.POSITIVE_INFINITY)) worst.set(index, reading);
  }
  for (const [index, { ratio }] of worst)
    if ((widths.get(index) ?? 0) < finding.widths.length && (ratio ?? 0) >= (finding.needed ?? 0)) worst.delete(index);
  return worst;
}

/** A finding of some of its places alone. */
function narrowed(finding: ProofFinding, places: readonly ProofPlace[]): ProofFinding {
  return {
    ...finding,
    places,
    states: finding.states.filter((state) => places.some((place) => place.state === state)),
    lightings: finding.lightings.filter((lighting) => places.some((place) => place.lighting === lighting)),
  };
}

function unreadOf(count: number): Unseen {
  return {
    what: message('proof.unread-over-pictures', { count }),
    reason: message('proof.pixels-under-them-were'),
  };
}

/** The darkest and the lightest of what lies under a text; one where they are the same. */
function rangeTold([from, to = from]: readonly string[]): Message {
  return from === to ? message('plain', { text: from }) : message('proof.range', { from, to });
}
