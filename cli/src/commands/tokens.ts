import { readFile } from 'node:fs/promises';
import { basename } from 'node:path';
import { PALETTE_FORMATS, readPaletteFile } from '@upper-veneer/core';
import { spoken } from '@upper-veneer/words';
import type { Command } from '../command.js';
import { UsageProblem } from '../usage-problem.js';
import { write } from '../write.js';

export const tokens: Command = {
  name: 'tokens',
  takes: '<file>',
  does: 'a palette file in another format, named by --to',
  async run(path, { to, out }) {
    const extensions = PALETTE_FORMATS.map(({ extension }) => extension);
    const format = PALETTE_FORMATS.find(({ extension }) => extension === to || extension === `.${to}`);
    if (!format) throw new UsageProblem(`--to ${to ?? 'is missing'}: it is ${extensions.join(', ')}`);
    const text = await readFile(path, 'utf8').catch(() => {
      throw new UsageProblem(`${path} is not there`);
    });
    const { colors, problems } = spoken(readPaletteFile(path, text));
    if (problems.length > 0)
      throw new UsageProblem(`${path}: ${problems.map(({ where, reason }) => `${where}: ${reason}`).join('; ')}`);
    const swatches = colors.map(({ name, css }, i) => ({ id: i + 1, name, css }));
    await write(
      format.write({ swatches, roles: [] }, { title: basename(path), prefix: 'brand', names: undefined }),
      out,
    );
    return 0;
  },
};
