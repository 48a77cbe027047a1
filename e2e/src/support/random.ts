/** A generator of numbers from 0 below 1 that a seed determines. The constants are those of Numerical Recipes, from memory. */
export function random(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state * 1664525 + 1013904223) % 4294967296;
    return state / 4294967296;
  };
}
