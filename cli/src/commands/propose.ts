import type { Command } from '../command.js';
import { matchAsAsked } from '../match-as-asked.js';
import { write } from '../write.js';
import { proposalAsJson, proposalAsText } from '../write-proposal.js';

export const propose: Command = {
  name: 'propose',
  takes: '<folder|zip>',
  does: 'which role each painted colour could take',
  async run(path, given) {
    const matched = await matchAsAsked(path, given);
    await write(given.json ? proposalAsJson(matched) : proposalAsText(matched), given.out);
    return matched.proposal.unmet.length > 0 ? 1 : 0;
  },
};
