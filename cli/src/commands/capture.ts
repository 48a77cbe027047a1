import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join, posix } from 'node:path';
import type { Command } from '../command.js';
import { isAddress, readAddress } from '../read-address.js';
import { UsageProblem } from '../usage-problem.js';
import { write } from '../write.js';

export const capture: Command = {
  name: 'capture',
  takes: '<address>',
  does: 'a page and the stylesheets of its origin, into the folder that --out names',
  async run(address, { out }) {
    if (!isAddress(address)) throw new UsageProblem(`${address} is no address: it begins with http:// or https://`);
    if (out === undefined) throw new UsageProblem('capture needs --out and the folder to write into');
    const { pages, stylesheets } = await readAddress(address);
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
        throw new UsageProblem(`${file} cannot be written: ${error instanceof Error ? error.message : String(error)}`);
      }
    }
    const sheets = Object.keys(stylesheets).length;
    await write(
      `${[...files.keys()].sort().join('\n')}\n${pages.length} page, ${sheets} ${sheets === 1 ? 'stylesheet' : 'stylesheets'} written to ${out}; pictures, fonts and sheets of other origins are left where they are\n`,
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
