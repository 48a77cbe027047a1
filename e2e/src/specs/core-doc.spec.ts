import { execFileSync } from 'node:child_process';
import { readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from '../support/product.js';

describe('docs/core.md', () => {
  it('shows a program that does what it says', () => {
    const text = readFileSync(join(root, 'docs/core.md'), 'utf8');
    const program = /```js\n([\s\S]*?)```/.exec(text)?.[1] ?? '';
    const command = /`node why\.mjs ([^`]+)` prints\n\n```\n([\s\S]*?)```/.exec(text);
    expect(program.trim().split('\n').length).toBeLessThanOrEqual(10);
    const file = join(root, 'docs/why.mjs');
    writeFileSync(file, program);
    try {
      const output = execFileSync(process.execPath, [file, ...(command?.[1] ?? '').split(' ')], {
        cwd: join(root, 'docs'),
        encoding: 'utf8',
      });
      expect(output).toBe(command?.[2] ?? 'nothing');
    } finally {
      rmSync(file);
    }
  });
});
