import { say } from '@upper-veneer/words';
import { proofStateTold, isSpecimen, type ProofKind } from '@upper-veneer/core';
import type { FindingView, ProofView } from '../shared/engine/proof-api';

/** What each group asks, in the order it is shown. */
export const KIND_WORDS: Readonly<Record<ProofKind, { readonly name: string; readonly asks: string }>> = {
  reads: { name: 'Reads', asks: 'text 4.5, large 3' },
  seen: { name: 'Is seen', asks: 'edge, ring 3' },
  answers: { name: 'Answers', asks: 'states tell apart' },
  ours: { name: 'Is ours', asks: 'no stray colour' },
  inside: { name: 'Stays in', asks: 'nothing spilt' },
  holds: { name: 'Holds', asks: 'every rule works' },
  eyes: { name: 'Other eyes', asks: 'not hue alone' },
};

/** `1 thing fails, 3 to look at`. */
export function headline(fails: number, looks: number): string {
  const failing = fails === 0 ? 'Nothing fails' : `${fails} ${fails === 1 ? 'thing fails' : 'things fail'}`;
  return looks === 0 ? failing : `${failing}, ${looks} to look at`;
}

/** `7 pages · 8 states, 3 at once · 3 widths · light and inverted · 8,315 looks in 0.9 s`. */
export function extent(proof: Omit<ProofView, 'findings' | 'unseen'>): string {
  const widths = new Set(proof.settings.map(({ width }) => width)).size;
  const others = proof.settings.length - widths;
  return [
    `${proof.pages} ${proof.pages === 1 ? 'page' : 'pages'}${proof.hasSpecimen ? ' and the specimen' : ''}`,
    `${proof.states.filter((state) => state !== 'together').length} states, 3 at once`,
    `${widths} ${widths === 1 ? 'width' : 'widths'}${others > 0 ? ` and ${others} other ${others === 1 ? 'setting' : 'settings'}` : ''}`,
    ...(proof.lightings.length > 1 ? ['light and inverted'] : []),
    `${proof.looks.toLocaleString('en')} looks in ${seconds(proof.took)}`,
  ].join(' · ');
}

function seconds(ms: number): string {
  return `${(Math.max(ms, 50) / 1000).toFixed(1)} s`;
}

/** A figure with its unit: `2.9 : 1`, `ΔE 6.7`. Ratios are cut, not rounded: 4.49 does not reach 4.5. */
export function figureWords({ figure, unit }: Pick<FindingView, 'figure' | 'unit'>): string {
  if (figure === null || unit === 'none') return '';
  return unit === 'ratio' ? `${(Math.floor(figure * 10 + 1e-9) / 10).toFixed(1)} : 1` : `ΔE ${figure.toFixed(1)}`;
}

/** Where a finding shows: `3 places · rest, focus · Book, Checkout · every width`; a place in several states is one. */
export function whereWords(
  { things, states, pageIds, widths, lightings }: FindingView,
  pages: readonly { readonly id: number; readonly name: string; readonly path: string }[],
  proof: Pick<ProofView, 'settings' | 'lightings'>,
): string {
  const names = pages.filter(({ id }) => pageIds.includes(id)).map(({ name }) => name);
  const isOnEvery = pages.every((page) => pageIds.includes(page.id) || isSpecimen(page));
  const all = new Set(proof.settings.map(({ width }) => width)).size;
  return [
    `${things.toLocaleString('en')} ${things === 1 ? 'place' : 'places'}`,
    states.map((state) => say(proofStateTold(state)).toLowerCase()).join(', '),
    isOnEvery && names.length > 1
      ? 'every page'
      : names.length > 3
        ? `${names.slice(0, 2).join(', ')} and ${names.length - 2} more`
        : names.join(', '),
    widths.length >= all ? 'every width' : `${widths.join(', ')} px`,
    ...(proof.lightings.length > 1 && lightings.length === 1 ? [lightings[0]] : []),
  ].join(' · ');
}
