import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { root } from '../support/product.js';
import { isWhole } from '../support/whole-run.js';

/** Visits and kills: all that the product is held to by `npm run prove`, a share of it each time. */
const [VISITS, KILLS] = isWhole ? [50_000, 5] : [1500, 1];

describe('counting for a trial', () => {
  it(`loses none of ${VISITS} stand-in visits that were acknowledged, counts none twice and changes no visitor’s look, over ${KILLS} kills`, async () => {
    const tool = spawn(process.execPath, [join(root, 'tools/count-visits.mjs'), String(VISITS), String(KILLS)]);
    let output = '';
    tool.stdout.on('data', (chunk: Buffer) => (output += chunk.toString()));
    tool.stderr.on('data', (chunk: Buffer) => (output += chunk.toString()));
    const code = await new Promise((done) => tool.on('exit', done));
    expect(code).withContext(output).toBe(0);
    expect(output).toContain('lost 0, twice 0, given another look 0');
  }, 900_000);
});
