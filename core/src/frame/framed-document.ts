/**
 * The captured document that a frame's address leads to: the one that agrees with the longest end of its path, by whole names;
 * `null` for none. Query and fragment are left aside.
 */
export function documentOf(address: string, paths: readonly string[]): string | null {
  const bare = address.split(/[?#]/, 1)[0];
  const wanted = bare.split('/').filter((name) => name !== '');
  let best: string | null = null;
  let longest = 0;
  for (const path of paths) {
    const own = path.split('/');
    let same = 0;
    while (same < own.length && same < wanted.length && own[own.length - 1 - same] === wanted[wanted.length - 1 - same])
      same += 1;
    if (same > longest) [best, longest] = [path, same];
  }
  return best;
}
