import { UsageProblem } from './usage-problem.js';

/** One of the values an option takes. @throws {UsageProblem} for any other. */
export function oneOf(name: string, value: string, known: readonly string[]): string {
  if (!known.includes(value)) throw new UsageProblem(`--${name} ${value}: it is ${known.join(' or ')}`);
  return value;
}
