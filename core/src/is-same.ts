/** Whether two values of plain data are the same all through. */
export function isSame(a: unknown, b: unknown): boolean {
  if (a === b) return true;
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false;
  if (Array.isArray(a) !== Array.isArray(b)) return false;
  const [here, there] = [a, b] as [Record<string, unknown>, Record<string, unknown>];
  const names = Object.keys(here);
  return names.length === Object.keys(there).length && names.every((name) => isSame(here[name], there[name]));
}
