import { say, wordsOf } from '@upper-veneer/words';
import { proofStateTold, isSpecimen, type ProofKind } from '@upper-veneer/core';
import type { FindingView, ProofView } from '../shared/engine/proof-api';

/** What each group asks, in the order it is shown. */
export const KIND_WORDS: Readonly<Record<ProofKind, { readonly name: string; readonly asks: string }>> = {
  reads: { name: wordsOf('proof.reads'), asks: wordsOf('proof.text-4-5-large') },
  seen: { name: wordsOf('proof.seen'), asks: wordsOf('proof.edge-ring-3') },
  answers: { name: wordsOf('proof.answers'), asks: wordsOf('proof.states-tell-apart') },
  ours: { name: wordsOf('proof.ours'), asks: wordsOf('proof.no-stray-colour') },
  inside: { name: wordsOf('proof.stays'), asks: wordsOf('proof.nothing-spilt') },
  holds: { name: wordsOf('proof.holds'), asks: wordsOf('proof.every-rule-works') },
  eyes: { name: wordsOf('proof.other-eyes'), asks: wordsOf('proof.not-hue-alone') },
};

/** `1 thing fails, 3 to look at`. */
export function headline(fails: number, looks: number): string {
  const failing =
    fails === 0 ? wordsOf('proof.nothing-fails') : `${fails} ${wordsOf('proof.thing-fails-things-fail', { fails })}`;
  return looks === 0 ? failing : wordsOf('proof.look', { failing, looks });
}

/** `7 pages · 8 states, 3 at once · 3 widths · light and inverted · 8,315 looks in 0.9 s`. */
export function extent(proof: Omit<ProofView, 'findings' | 'unseen'>): string {
  const widths = new Set(proof.settings.map(({ width }) => width)).size;
  const others = proof.settings.length - widths;
  return [
    wordsOf('proof.page-pages', {
      pages: proof.pages,
      case: proof.hasSpecimen ? 'yes' : 'no',
      words: wordsOf('proof.specimen'),
    }),
    wordsOf('proof.states-3-once', { states: proof.states.filter((state) => state !== 'together').length }),
    wordsOf('proof.width-widths', { widths, others }),
    ...(proof.lightings.length > 1 ? [wordsOf('proof.light-inverted')] : []),
    wordsOf('proof.looks', { looks: proof.looks, seconds: seconds(proof.took) }),
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
    wordsOf('proof.place-count', { things }),
    states.map((state) => say(proofStateTold(state)).toLowerCase()).join(', '),
    isOnEvery && names.length > 1
      ? wordsOf('proof.every-page-inner')
      : names.length > 3
        ? wordsOf('proof.more', { names: names.slice(0, 2), names2: names.length - 2 })
        : names.join(', '),
    widths.length >= all ? wordsOf('proof.every-width-inner') : `${widths.join(', ')} px`,
    ...(proof.lightings.length > 1 && lightings.length === 1 ? [lightings[0]] : []),
  ].join(' · ');
}
