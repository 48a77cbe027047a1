import { message, type Message } from '../message/message.js';
import type { Drift } from './drift.js';

/** What became of an override, the worst first: `2 targets no longer matched, 3 as before`. */
export function driftTold({ lost, gone, beaten, gained, kept }: Drift): Message {
  const [by] = beaten.map((place) => place.by);
  return message('drift.became', {
    parts: [
      ...(lost.length > 0 ? [message('drift.lost', { count: lost.length })] : []),
      ...(gone.length > 0 ? [message('drift.gone', { count: gone.length })] : []),
      ...(by ? [message('drift.beaten', { count: beaten.length, by })] : []),
      ...(gained.length > 0 ? [message('drift.gained', { count: gained.length })] : []),
      ...(kept > 0 ? [message('drift.kept', { count: kept })] : []),
    ],
  });
}
