/** An id that nothing else has; `randomUUID` is there in secure contexts alone. */
export function newId(): string {
  return [...crypto.getRandomValues(new Uint32Array(4))].map((part) => part.toString(36)).join('');
}
