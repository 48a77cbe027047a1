import { errorText } from '@upper-veneer/words';
import { createServer, type Server } from 'node:http';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { pino } from 'pino';
import { createApp } from './app.js';
import { DataError, openDatabase } from './db/open.js';
import { listeningAt, type Listening } from './listening.js';
import { seedFolder } from './seed/seed-folder.js';
import { askHostAt } from './served.js';
import { createHostCache } from './host-cache.js';
import { LIVE_HOST } from './live-demo.js';
import { createStandInHost, siteHostName, widgetsHostName } from './stand-in-host.js';
import { createStore } from './store.js';
import { createDressedTexts } from './work/dressed-texts.js';
import { createThreadPool } from './work/thread-pool.js';

const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');
const log = pino({ level: process.env['LOG_LEVEL'] ?? 'error' }, pino.destination(2));

/** Ends with one clear line. */
function fail(message: string): never {
  process.stderr.write(`${message}\n`);
  process.exit(1);
}

function readPort(name: string, fallback: number): number {
  const text = process.env[name];
  if (text === undefined || text === '') return fallback;
  const port = Number(text);
  return Number.isInteger(port) && port >= 0 && port < 65536
    ? port
    : fail(`${name} must be a port number from 0 to 65535, not "${text}".`);
}

function listeningOrFail(): Listening {
  try {
    return listeningAt(process.env['LISTEN'] ?? '127.0.0.1', process.env['ACCESS_TOKEN']);
  } catch (error) {
    return fail(`${errorText(error)}.`);
  }
}

function listen(server: Server, port: number, name: string, address: string): Promise<number> {
  return new Promise((done) => {
    server.once('error', (error: NodeJS.ErrnoException) => {
      if (error.code === 'EADDRINUSE') fail(`Port ${port} is in use. Set ${name} to a free port and start again.`);
      fail(`Port ${port} cannot be used: ${error.message}.`);
    });
    server.listen(port, address, () => {
      const bound = server.address();
      done(typeof bound === 'object' && bound ? bound.port : port);
    });
  });
}

async function start(): Promise<void> {
  const port = readPort('PORT', 4310);
  const hostPort = readPort('HOST_PORT', port === 0 ? 0 : port + 1);
  const listening = listeningOrFail();
  const { address } = listening;
  const dataFolder = resolve(process.env['DATA_DIR'] ?? join(root, 'data'));
  let db: ReturnType<typeof openDatabase>;
  try {
    db = openDatabase(join(dataFolder, 'upper-veneer.sqlite'));
  } catch (error) {
    if (error instanceof DataError) fail(`${error.message}.`);
    throw error;
  }
  const store = createStore(db);
  seedFolder(store, join(root, 'demo'));
  const pool = createThreadPool();
  const dressed = createDressedTexts(pool);
  const cache = createHostCache();
  const hostServer = createServer(
    createStandInHost({ store, dressed, cache, openTo: listening.names, demoFolder: join(root, 'demo') }),
  );
  const boundHostPort = await listen(hostServer, hostPort, 'HOST_PORT', address);
  const { app, close } = createApp({
    store,
    pool,
    dressed,
    cache,
    hostUrl: (siteId) =>
      `http://${listening.isOpen ? listening.name : siteHostName(siteId)}:${boundHostPort}/${siteId}/`,
    widgetsAt: (siteId) =>
      `http://${listening.isOpen ? listening.name : widgetsHostName(siteId)}:${boundHostPort}/${siteId}`,
    askHost: askHostAt(`http://${listening.itself}:${boundHostPort}`, (siteId) =>
      listening.isOpen ? listening.name : siteHostName(siteId),
    ),
    allowedHosts: listening.names,
    token: listening.token,
    webFolder: join(root, 'web/dist/browser'),
    fetchPolicy: () => ({
      allowedHosts: [`localhost:${boundHostPort}`, `*.localhost:${boundHostPort}`],
      allowPrivate: process.env['FETCH_PRIVATE'] === '1',
    }),
    exampleAddress: listening.isOpen ? '' : `http://${LIVE_HOST}:${boundHostPort}/`,
    log: (error) => log.error(error),
  });
  const server = createServer(app);
  const boundPort = await listen(server, port, 'PORT', address);
  const stop = (): void => {
    close();
    server.close();
    hostServer.close();
    server.closeAllConnections();
    hostServer.closeAllConnections();
    void pool.close();
    db.close();
    process.exit(0);
  };
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
  process.stdout.write(
    listening.isOpen
      ? `Upper Veneer is at http://${listening.name}:${boundPort}, for everyone who can reach ${address} and has the token: ${listening.token}\nWhat is published is at port ${boundHostPort}, for everyone who can reach it.\n`
      : `Upper Veneer is at http://localhost:${boundPort}\n`,
  );
}

await start();
