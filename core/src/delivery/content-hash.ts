/** Offset basis and prime of 32-bit FNV-1a (Fowler, Noll, Vo; from memory). */
const BASIS = 0x811c9dc5;
const PRIME = 0x01000193;

/** Hash of a text's UTF-8 bytes, eight hex digits: the same text has the same, another hardly ever. Not against malice. */
export function contentHash(text: string): string {
  let hash = BASIS;
  for (const byte of new TextEncoder().encode(text)) hash = Math.imul(hash ^ byte, PRIME) >>> 0;
  return hash.toString(16).padStart(8, '0');
}
