import { errorText } from '@upper-veneer/words';
import { parseArgs } from 'node:util';
import type { Command, Given } from './command.js';
import { build } from './commands/build.js';
import { capture } from './commands/capture.js';
import { check } from './commands/check.js';
import { lay } from './commands/lay.js';
import { propose } from './commands/propose.js';
import { tokens } from './commands/tokens.js';
import { UsageProblem } from './usage-problem.js';

/** Every command. A new one is one more file and one more row. */
const COMMANDS: readonly Command[] = [capture, propose, lay, build, check, tokens];

const HELP = `upper-veneer: fits saved pages to a brand palette and checks them, without a server; capture starts a browser where there is one.

${COMMANDS.map(({ name, takes, does }) => `  upper-veneer ${`${name} ${takes}`.padEnd(29)} ${does}`).join('\n')}

  --palette FILE    design tokens; roles are aliases named as the roles are (ground, ink, accent…)
  --veneer FILE     stylesheet that is loaded over the site's own (check)
  --scope SELECTOR  matches only what the selector gathers, and all inside it (propose, lay)
  --strategy NAME   blend (usual) or stand-out (propose, lay)
  --width LIST      viewport widths in CSS px; those that matter when left out (check)
  --lighting NAME   light (usual) or inverted; check takes both as well
  --mend            tries a mend for each finding, which takes its time (check)
  --steps FILE      what is done on the page first, and what is kept of it (capture)
  --as-sent         the page as it is sent, without a browser (capture)
  --json            as JSON (propose, check)
  --sarif           as SARIF 2.1.0 (check)
  --to EXTENSION    .tokens.json, .gpl or .css (tokens)
  --out FILE        writes there instead of to the screen; a folder for capture
  --help            this

check ends with 0 where nothing fails, 1 where something does, 2 where it could not be looked at.

  upper-veneer capture https://river.example/book --out saved/
  upper-veneer capture https://river.example/checkout --steps second-step.json --out saved/
  upper-veneer propose saved/ --palette brand.tokens.json --scope '#booking'
  upper-veneer lay shop.zip --palette brand.tokens.json --strategy stand-out --out veneer.css
  upper-veneer check shop.zip --veneer veneer.css --palette brand.tokens.json --sarif --out findings.sarif
  upper-veneer build osier-reed.draft.json --out veneer.css
  upper-veneer tokens brand.gpl --to .tokens.json
`;

/** Runs one command. @returns the exit code: 0 done, 1 something fails or could not be met, 2 not understood. */
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
  const [name, path] = positionals;
  if (values.help || name === undefined) {
    process.stdout.write(HELP);
    return values.help ? 0 : 2;
  }
  const command = COMMANDS.find((own) => own.name === name);
  if (!command) throw new UsageProblem(`${name} is no command; see --help`);
  if (path === undefined) throw new UsageProblem(`${name} needs ${command.takes}; see --help`);
  return command.run(path, values satisfies Given);
}

function parsed(args: readonly string[]): ReturnType<typeof parseOptions> {
  try {
    return parseOptions(args);
  } catch (error) {
    throw new UsageProblem(`${errorText(error)}; see --help`);
  }
}

function parseOptions(args: readonly string[]) {
  return parseArgs({
    args: [...args],
    allowPositionals: true,
    options: {
      palette: { type: 'string' },
      veneer: { type: 'string' },
      scope: { type: 'string' },
      strategy: { type: 'string' },
      width: { type: 'string', multiple: true },
      lighting: { type: 'string' },
      to: { type: 'string' },
      out: { type: 'string' },
      mend: { type: 'boolean' },
      steps: { type: 'string' },
      'as-sent': { type: 'boolean' },
      json: { type: 'boolean' },
      sarif: { type: 'boolean' },
      help: { type: 'boolean' },
    },
  });
}
