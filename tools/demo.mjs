import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuilt, ensureDependencies, fail, requireNode, root } from './setup.mjs';

requireNode();
try {
  await ensureDependencies();
} catch (error) {
  fail(`The packages could not be installed.\n${error.message}`);
}
await ensureBuilt(['core', 'contract', 'server', 'web']);

const server = spawn(process.execPath, [join(root, 'server/dist/main.js')], { stdio: 'inherit', env: { ...process.env, NODE_ENV: 'production' } });
// Ctrl-C reaches the server by itself; this process only waits for it to end.
process.on('SIGINT', () => undefined);
process.on('SIGTERM', () => server.kill('SIGTERM'));
server.on('exit', (code) => process.exit(code ?? 0));
