import { runSets } from './run-sets.mjs';
import { TURNS, turnOf } from './sample.mjs';
import { allSets } from './sets.mjs';
import { builds, ensureChromium, ensureDatabaseDriver, ensurePackages, fail, requireNode, say } from './setup.mjs';

/** `npm test` runs a share of the sets that are sampled; `--all` every spec; `--whole`, as `npm run prove`, each with all of its draws. */
const isWhole = process.argv.includes('--whole');
const isAll = isWhole || process.argv.includes('--all');
const only = process.argv.slice(2).filter((word) => !word.startsWith('--'));

requireNode();
const failed = (error) => fail(`The set-up failed.\n${error.message}`);
const chromium = ensureChromium().catch(failed);
await ensurePackages().catch(failed);
const driver = ensureDatabaseDriver().catch(failed);
const built = builds();
/** What a set waits for: the compiled driver, the browser, or what is built. */
const ready = (need) => (need === 'driver' ? driver : need === 'chromium' ? chromium : built(need));

const turn = turnOf();
if (!isAll)
  say(
    `Of the interface, of the core against Chromium and of format and style a sample is run: turn ${turn + 1} of ${TURNS}, by the last commit; all of it is \`npm run prove\`.`,
  );
const environmentOf = ({ isSampled, whole, part }) => ({
  SPEC_TURN: String(turn),
  ...(part ? { SPEC_PART: part } : {}),
  ...(isWhole ? whole : !isAll && isSampled ? { SPEC_SAMPLE: '1' } : {}),
});
const isWanted = ({ name, turn: own = null }) =>
  only.length > 0 ? only.some((word) => name.includes(word)) : isAll || own === null || own === turn;
const wanted = allSets({ isWhole })
  .filter(isWanted)
  .map((set) => (isAll || !set.sample ? set : { ...set, args: [...set.args, ...set.sample] }));
process.exit((await runSets(wanted, { ready, environmentOf })) > 0 ? 1 : 0);
