import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { dressSite, openSite } from '@upper-veneer/core';
import { LARGE_SITES } from './large-sites.mjs';

/** Fifty pages of 1,900 elements as the core opens them, none read yet. */
export function openFifty(palette) {
  const files = Object.entries(LARGE_SITES.fifty());
  const source = {
    pages: files
      .filter(([path]) => path.endsWith('.html'))
      .map(([path, html], i) => ({ id: i + 1, name: path, path, html })),
    stylesheets: Object.fromEntries(files.filter(([path]) => path.endsWith('.css'))),
    parts: [],
    veneerPlace: 'head-end',
    prefix: 'brand',
  };
  return dressSite(openSite(source), [], palette);
}

/** What something gives, and how long it took, ms. */
export function timed(act) {
  const start = performance.now();
  const value = act();
  return { value, took: performance.now() - start };
}

/** Runs a script alone, so that what it takes is not that of what ran before it. */
export function inOwnProcess(script, ...args) {
  execFileSync(process.execPath, [fileURLToPath(new URL(script, import.meta.url)), ...args], { stdio: 'inherit' });
}

/** Runs a generator to its end, and tells the longest time between two signs of progress, ms. */
export function stepped(steps) {
  let [longest, last] = [0, performance.now()];
  for (;;) {
    const step = steps.next();
    longest = Math.max(longest, performance.now() - last);
    last = performance.now();
    if (step.done) return { value: step.value, longest };
  }
}
