import type { Drift } from './drift.js';

/** What became of an override, the worst first: `2 targets no longer matched, 3 kept`. */
export function driftWords({ lost, gone, beaten, gained, kept }: Drift): string {
  const parts = [
    ...(lost.length > 0 ? [`${counted(lost.length, 'target')} no longer matched`] : []),
    ...(gone.length > 0 ? [`${counted(gone.length, 'target')} no longer there`] : []),
    ...(beaten.length > 0 ? [`on ${counted(beaten.length, 'target')} ${beaten[0].by} wins now`] : []),
    ...(gained.length > 0 ? [`${counted(gained.length, 'element')} matched besides`] : []),
    ...(kept > 0 ? [`${kept.toLocaleString('en')} as before`] : []),
  ];
  const words = parts.join(', ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}

function counted(count: number, one: string): string {
  return `${count.toLocaleString('en')} ${one}${count === 1 ? '' : 's'}`;
}
