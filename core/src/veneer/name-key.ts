/** What two swatch names are told apart by: their letters, in any script, whatever their case. */
export function nameKey(name: string): string {
  return name.normalize('NFKC').trim().toLowerCase();
}
