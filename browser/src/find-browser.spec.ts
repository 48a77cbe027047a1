import { chmodSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { findBrowser } from './find-browser.js';

describe('the browser of this machine', () => {
  const folder = mkdtempSync(join(tmpdir(), 'uv-find-'));
  const program = join(folder, 'chromium');
  afterAll(() => rmSync(folder, { recursive: true }));

  it('is the one that is named, where it can be run', () => {
    writeFileSync(program, '#!/bin/sh\n');
    chmodSync(program, 0o755);
    expect(findBrowser({ CHROME_BIN: program })).toBe(program);
  });

  it('is no other than the one that is named', () => {
    expect(findBrowser({ CHROME_BIN: join(folder, 'none') })).toBe(null);
  });
});
