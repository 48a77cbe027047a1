import { readFile } from 'node:fs/promises';
import { LIGHTINGS } from '@upper-veneer/core';
import { checkSite } from '../check-site.js';
import type { Command } from '../command.js';
import { oneOf } from '../one-of.js';
import { readAddress, isAddress } from '../read-address.js';
import { readPalette } from '../read-palette.js';
import { readSite } from '../read-site.js';
import { UsageProblem } from '../usage-problem.js';
import { write } from '../write.js';
import { findingsAsJson, findingsAsText } from '../write-findings.js';
import { findingsAsSarif } from '../write-sarif.js';

/** Narrowest and widest viewport that is looked at, CSS px. */
const WIDTHS = [200, 10_000] as const;

export const check: Command = {
  name: 'check',
  takes: '<folder|zip|address>',
  does: 'what cannot be read or seen, does not answer, is not ours, spills or does nothing',
  async run(path, given) {
    const lighting = oneOf('lighting', given.lighting ?? 'light', [...LIGHTINGS, 'both']) as
      'light' | 'inverted' | 'both';
    const widths = given.width?.flatMap((list) => list.split(',')).map(readWidth) ?? null;
    const [saved, palette, veneer] = await Promise.all([
      isAddress(path) ? readAddress(path) : readSite(path),
      given.palette === undefined ? null : readPalette(given.palette, 'light'),
      given.veneer === undefined ? '' : readSheet(given.veneer),
    ]);
    const checked = checkSite({ saved, palette, veneer, widths, lighting, triesMends: given.mend ?? false });
    const text = given.sarif
      ? findingsAsSarif(checked)
      : given.json
        ? findingsAsJson(checked)
        : findingsAsText(checked);
    await write(text, given.out);
    return checked.proof.findings.some(({ level }) => level === 'fails') ? 1 : 0;
  },
};

function readWidth(text: string): number {
  const width = Number(text);
  if (!Number.isInteger(width) || width < WIDTHS[0] || width > WIDTHS[1])
    throw new UsageProblem(`--width ${text}: it is a whole number of CSS px from ${WIDTHS.join(' to ')}`);
  return width;
}

function readSheet(path: string): Promise<string> {
  return readFile(path, 'utf8').catch(() => {
    throw new UsageProblem(`${path} is not there`);
  });
}
