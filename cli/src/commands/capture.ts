import { errorText } from '@upper-veneer/words';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join, posix } from 'node:path';
import type { Command } from '../command.js';
import { isAddress, readAddress } from '../read-address.js';
import { UsageProblem } from '../usage-problem.js';
import { canVisit, visitAddress } from '../visit-address.js';
import { write } from '../write.js';

export const capture: Command = {
  name: 'capture',
  takes: '<address>',
  does: 'a page as visitors get it and its stylesheets, into the folder that --out names',
  async run(address, { out, steps, 'as-sent': isAsSent = false }) {
    if (!isAddress(address) || !URL.canParse(address))
      throw new UsageProblem(`${address} is no address: it begins with http:// or https://`);
    if (out === undefined) throw new UsageProblem('capture needs --out and the folder to write into');
    if (isAsSent && steps !== undefined)
      throw new UsageProblem('--steps needs a browser, which --as-sent does without');
    const isVisited = !isAsSent && (steps !== undefined || canVisit());
    const { pages, stylesheets, notes } = isVisited
      ? await visitAddress(address, steps, (words) => process.stderr.isTTY && process.stderr.write(`${words}\n`))
      : { ...(await readAddress(address)), notes: [] };
    const files = new Map([
      ...pages.map(({ path, html }) => [asPage(path), html] as const),
      ...Object.entries(stylesheets),
    ]);
    for (const [path, text] of files) {
      const file = join(out, withinFolder(path));
      try {
        await mkdir(dirname(file), { recursive: true });
        await writeFile(file, text);
      } catch (error) {
        throw new UsageProblem(`${file} cannot be written: ${errorText(error)}`);
      }
    }
    const sheets = Object.keys(stylesheets).length;
    const how = isVisited
      ? 'as a visitor’s browser gets it; pictures and fonts are left where they are'
      : 'as it is sent, without what scripts put in; pictures, fonts and sheets of other origins are left where they are';
    const counts = `${pages.length} ${pages.length === 1 ? 'page' : 'pages'}, ${sheets} ${sheets === 1 ? 'stylesheet' : 'stylesheets'}`;
    await write(
      [...[...files.keys()].sort(), ...notes, `${counts} written to ${out}, ${how}`, ''].join('\n'),
      undefined,
    );
    return 0;
  },
};

/** Path of a page as it is known again in the folder: an address need not end as pages do. */
function asPage(path: string): string {
  return /\.(?:html?|xhtml)$/i.test(path) ? path : `${path}.html`;
}

/** A path that cannot lead out of the folder, whatever the address says. */
function withinFolder(path: string): string {
  return posix.normalize(`/${path}`).slice(1);
}
