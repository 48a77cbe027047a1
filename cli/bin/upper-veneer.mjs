#!/usr/bin/env node
import { existsSync } from 'node:fs';

// Whoever reads may stop before all is written.
process.stdout.on('error', (error) => {
  if (error.code !== 'EPIPE') throw error;
  process.exit();
});

const main = new URL('../dist/main.js', import.meta.url);
if (existsSync(main)) {
  const { run } = await import(main.href);
  process.exitCode = await run(process.argv.slice(2));
} else {
  process.stderr.write('The command is not built yet; run: npm run build -w core -w cli\n');
  process.exitCode = 2;
}
