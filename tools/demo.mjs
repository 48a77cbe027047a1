import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt, ensureDatabaseDriver, ensurePackages, fail, requireNode, root } from './setup.mjs';

requireNode();
try {
  await ensurePackages();
  await Promise.all([
    ensureDatabaseDriver(),
    ensureBuilt(['core', 'contract', 'snapshot', 'browser', 'server', 'web']),
  ]);
} catch (error) {
  fail(`The packages could not be installed.\n${error.message}`);
}

const server = spawn(process.execPath, [join(root, 'server/dist/main.js')], {
  stdio: 'inherit',
  env: { ...process.env, NODE_ENV: 'production' },
});
// This process only waits for the server to end, and passes on what it is told.
process.on('SIGINT', () => server.kill('SIGINT'));
process.on('SIGTERM', () => server.kill('SIGTERM'));
server.on('exit', (code) => process.exit(code ?? 0));
