import { say, spoken } from '@upper-veneer/words';
import { isProved } from '@upper-veneer/core';
import type { Command } from '../command.js';
import { matchAsAsked } from '../match-as-asked.js';
import { layOn } from '../match-site.js';
import { write } from '../write.js';

export const lay: Command = {
  name: 'lay',
  takes: '<folder|zip>',
  does: 'the same as a stylesheet',
  async run(path, given) {
    const { css, refused, proof } = layOn(await matchAsAsked(path, given));
    await write(css, given.out);
    for (const { reason, places } of refused) process.stderr.write(`${places} places not written: ${say(reason)}\n`);
    for (const words of proof.missed.words) process.stderr.write(`does not come to it: ${say(words)}\n`);
    if (proof.at.unseen.length > 0) process.stderr.write(`not looked at: ${spoken(proof.at.unseen).join(', ')}\n`);
    for (const words of proof.spilt.words) process.stderr.write(`changed outside the scope: ${say(words)}\n`);
    if (!isProved(proof))
      process.stderr.write(
        `not proved: ${proof.missed.count} places do not come to it, ${proof.spilt.count} changed outside, ${proof.unread.length} pages not wholly read\n`,
      );
    return refused.length > 0 || !isProved(proof) ? 1 : 0;
  },
};
