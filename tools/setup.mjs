import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = resolve(dirname(fileURLToPath(import.meta.url)), '..');
const WORKSPACES = ['words', 'core', 'contract', 'snapshot', 'browser', 'cli', 'server', 'web', 'demo', 'e2e'];

/** Says what is going on, on its own line. */
export function say(text) {
  process.stdout.write(`${text}\n`);
}

/** Ends with one clear line. */
export function fail(text) {
  process.stderr.write(`${text}\n`);
  process.exit(1);
}

export function requireNode() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19) || major > 22)
    fail(`Upper Veneer needs Node 20.19 or newer, up to 22; this is ${process.versions.node}.`);
}

function has(command) {
  return spawnSync('sh', ['-c', `command -v ${command}`], { stdio: 'ignore' }).status === 0;
}

/** Runs a command; its output is shown only when it fails. */
export function run(command, args, options = {}) {
  return new Promise((done, failed) => {
    const child = spawn(command, args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let output = '';
    child.stdout.on('data', (chunk) => {
      output += chunk;
    });
    child.stderr.on('data', (chunk) => {
      output += chunk;
    });
    child.on('error', failed);
    child.on('close', (code) =>
      code === 0
        ? done(output)
        : failed(new Error(`${command} ${args.join(' ')} ended with ${code}\n${output.slice(-6000)}`)),
    );
  });
}

/** What Debian's packager does now; it takes one installation at a time. */
let installing = Promise.resolve();

/** Installs Debian packages when a command is missing. */
function ensureCommands(commands, packages, why) {
  if (commands.every(has)) return Promise.resolve();
  installing = installing.then(async () => {
    if (!has('apt-get')) throw new Error(`${why} needs ${commands.join(', ')}; install them and start again.`);
    if (process.getuid?.() !== 0)
      throw new Error(`${why} needs ${commands.join(', ')}. Run: sudo apt-get install ${packages.join(' ')}`);
    say(`Installing ${packages.join(', ')} from Debian (${why.toLowerCase()})…`);
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    await run('apt-get', ['update'], { env });
    await run('apt-get', ['install', '-y', '--no-install-recommends', ...packages], { env });
  });
  return installing;
}

export async function ensureChromium() {
  if (
    [
      process.env.CHROME_BIN ?? '/usr/bin/chromium',
      process.env.CHROME_SHELL_BIN ?? '/usr/bin/chromium-headless-shell',
    ].every(existsSync)
  )
    return;
  await ensureCommands(
    ['chromium', 'chromium-headless-shell'],
    ['chromium', 'chromium-headless-shell'],
    'The browser tests',
  );
}

/** Installs the packages of the lock file, once per lock file; the database driver among them is not compiled yet. */
export async function ensurePackages() {
  const wanted = hashOf(
    ['package-lock.json', 'package.json', ...WORKSPACES.map((name) => `${name}/package.json`)].map((file) =>
      join(root, file),
    ),
    true,
  );
  const stamp = join(root, 'node_modules/.installed-for');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  say('Installing packages (about a minute the first time)…');
  // The only package with a step of its own to run is the driver; the others ship what they need.
  await run('npm', ['ci', '--no-audit', '--no-fund', '--ignore-scripts']);
  writeFileSync(stamp, wanted);
}

/** Compiles the database driver, once per installation. */
export async function ensureDatabaseDriver() {
  if (existsSync(join(root, 'node_modules/better-sqlite3/build/Release/better_sqlite3.node'))) return;
  await ensureCommands(
    ['python3', 'make', 'g++'],
    ['python3', 'make', 'g++'],
    'The database driver is compiled here and',
  );
  say('Compiling the database driver (half a minute the first time)…');
  // Compiled so in a sixth of the time; what runs for many people is installed by `npm ci`, which optimises it fully.
  // That one warning, asked for by the package and shown nowhere, measures the columns of every line of SQLite's one file.
  const flags = '-O0 -Wno-misleading-indentation';
  await run('npm', ['rebuild', 'better-sqlite3'], { env: { ...process.env, CFLAGS: flags, CXXFLAGS: flags } });
}

/** Packages and the compiled driver. */
export async function ensureDependencies() {
  await ensurePackages();
  await ensureDatabaseDriver();
}

/** Builds what changed since it was last built, with what it needs. */
export async function ensureBuilt(targets) {
  const built = builds();
  await Promise.all(targets.map(built));
}

/** The compiler that runs as machine code, for what needs nothing of Angular: an eighth of the time of the other. */
const compile = (name) => run(process.execPath, ['node_modules/typescript-7/bin/tsc', '-p', `${name}/tsconfig.json`]);

/** What builds a target by its name: each once, as soon as what it needs is built. Each target names what it is made of. */
export function builds() {
  const all = {
    words: {
      from: ['words/src', 'words/tsconfig.json', 'tsconfig.base.json'],
      needs: [],
      make: () => compile('words'),
    },
    core: {
      from: ['core/src', 'core/tsconfig.json', 'tsconfig.base.json'],
      needs: ['words'],
      make: () => compile('core'),
    },
    contract: {
      from: ['contract/src', 'contract/tsconfig.json'],
      needs: ['core'],
      make: () => compile('contract'),
    },
    cli: {
      from: ['cli/src', 'cli/tsconfig.json'],
      needs: ['core', 'contract', 'browser'],
      make: () => compile('cli'),
    },
    server: {
      from: ['server/src', 'server/tsconfig.json'],
      needs: ['core', 'contract', 'snapshot', 'browser'],
      make: () => compile('server'),
    },
    web: {
      from: [
        'web/src',
        'web/public',
        'web/angular.json',
        'web/tsconfig.json',
        'web/tsconfig.app.json',
        'web/tsconfig.worker.json',
      ],
      needs: ['core', 'contract', 'snapshot'],
      make: () =>
        run('npx', ['ng', 'build'], { cwd: join(root, 'web'), env: { ...process.env, NG_CLI_ANALYTICS: 'false' } }),
    },
    snapshot: {
      from: ['snapshot/src', 'snapshot/tsconfig.json'],
      needs: ['words'],
      make: () => compile('snapshot'),
    },
    browser: {
      from: ['browser/src', 'browser/tsconfig.json'],
      needs: ['core', 'snapshot'],
      make: () => compile('browser'),
    },
    e2e: {
      from: ['e2e/src', 'e2e/tsconfig.json'],
      needs: ['core', 'contract', 'server', 'snapshot', 'browser'],
      make: () => compile('e2e'),
    },
  };
  const folders = join(root, 'node_modules/.built-for');
  mkdirSync(folders, { recursive: true });
  const fingerprints = {};
  const fingerprint = (name) =>
    (fingerprints[name] ??=
      hashOf([...all[name].from.map((path) => join(root, path))]) + all[name].needs.map(fingerprint).join(''));
  const build = async (name) => {
    const stamp = join(folders, name);
    const wanted = fingerprint(name);
    if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted && existsSync(join(root, name, 'dist'))) return;
    say(`Building ${name}…`);
    // What was compiled of files that are gone goes too.
    rmSync(join(root, name, 'dist'), { recursive: true, force: true });
    try {
      await all[name].make();
    } catch (error) {
      fail(`Building ${name} failed.\n${error.message}`);
    }
    writeFileSync(stamp, wanted);
  };
  const building = new Map();
  const built = (name) => {
    if (!building.has(name))
      building.set(
        name,
        Promise.all(all[name].needs.map(built)).then(() => build(name)),
      );
    return building.get(name);
  };
  return built;
}

function hashOf(paths, withContent = false) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    const info = statSync(path);
    if (info.isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(withContent ? readFileSync(path) : `${path}:${info.size}:${info.mtimeMs}`);
  };
  paths.forEach(visit);
  return hash.digest('hex').slice(0, 24);
}
