import { writeFile } from 'node:fs/promises';
import { parseArgs } from 'node:util';
import { STRATEGIES, isProved, type Lighting, type Strategy } from '@upper-veneer/core';
import { layOn, matchSite } from './match-site.js';
import { readPalette } from './read-palette.js';
import { readSite } from './read-site.js';
import { UsageProblem } from './usage-problem.js';
import { proposalAsJson, proposalAsText } from './write-proposal.js';

const HELP = `upper-veneer: fits saved pages to a brand palette, without a server and without a browser.

  upper-veneer propose <folder|zip> --palette tokens.json [options]   which role each painted colour could take
  upper-veneer lay     <folder|zip> --palette tokens.json [options]   the same as a stylesheet

  --palette FILE    design tokens; roles are aliases named as the roles are (ground, ink, accent…)
  --scope SELECTOR  matches only what the selector gathers, and all inside it
  --strategy NAME   blend (usual) or stand-out
  --lighting NAME   light (usual) or inverted, whose roles are derived
  --json            rows as JSON (propose)
  --out FILE        writes there instead of to the screen
  --help            this

  upper-veneer propose saved/ --palette brand.tokens.json --scope '#booking'
  upper-veneer lay shop.zip --palette brand.tokens.json --strategy stand-out --out veneer.css
`;

/** Runs one command. @returns the exit code: 0 done, 1 something could not be met or written, 2 not understood. */
export async function run(args: readonly string[]): Promise<number> {
  try {
    return await act(args);
  } catch (error) {
    if (!(error instanceof UsageProblem)) throw error;
    process.stderr.write(`${error.message}\n`);
    return 2;
  }
}

async function act(args: readonly string[]): Promise<number> {
  const { values, positionals } = parsed(args);
  const [command, path] = positionals;
  if (values.help || command === undefined) {
    process.stdout.write(HELP);
    return values.help ? 0 : 2;
  }
  if (command !== 'propose' && command !== 'lay') throw new UsageProblem(`${command} is no command; see --help`);
  if (path === undefined) throw new UsageProblem(`${command} needs a folder or a zip; see --help`);
  if (values.palette === undefined) throw new UsageProblem(`${command} needs --palette FILE; see --help`);
  const strategy = oneOf('strategy', values.strategy ?? 'blend', STRATEGIES) as Strategy;
  const lighting = oneOf('lighting', values.lighting ?? 'light', ['light', 'inverted']) as Lighting;
  const [saved, palette] = [await readSite(path), await readPalette(values.palette, lighting)];
  const matched = matchSite({ saved, palette, scope: values.scope ?? null, strategy });
  const write = (text: string): Promise<void> | boolean =>
    values.out === undefined ? process.stdout.write(text) : writeFile(values.out, text);
  if (command === 'propose') {
    await write(values.json ? proposalAsJson(matched) : proposalAsText(matched));
    return matched.proposal.unmet.length > 0 ? 1 : 0;
  }
  const { css, refused, proof } = layOn(matched);
  await write(css);
  for (const { reason, places } of refused) process.stderr.write(`${places} places not written: ${reason}\n`);
  for (const words of proof.missed.words) process.stderr.write(`does not come to it: ${words}\n`);
  if (proof.at.unseen.length > 0) process.stderr.write(`not looked at: ${proof.at.unseen.join(', ')}\n`);
  for (const words of proof.spilt.words) process.stderr.write(`changed outside the scope: ${words}\n`);
  if (!isProved(proof))
    process.stderr.write(
      `not proved: ${proof.missed.count} places do not come to it, ${proof.spilt.count} changed outside, ${proof.unread.length} pages not wholly read\n`,
    );
  return refused.length > 0 || !isProved(proof) ? 1 : 0;
}

function parsed(args: readonly string[]): ReturnType<typeof parseOptions> {
  try {
    return parseOptions(args);
  } catch (error) {
    throw new UsageProblem(`${error instanceof Error ? error.message : String(error)}; see --help`);
  }
}

function parseOptions(args: readonly string[]) {
  return parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      palette: { type: 'string' },
      scope: { type: 'string' },
      strategy: { type: 'string' },
      lighting: { type: 'string' },
      out: { type: 'string' },
      json: { type: 'boolean' },
      help: { type: 'boolean' },
    },
  });
}

function oneOf(name: string, value: string, known: readonly string[]): string {
  if (!known.includes(value)) throw new UsageProblem(`--${name} ${value}: it is ${known.join(' or ')}`);
  return value;
}
