import { Agent, createServer, request, type IncomingMessage, type ServerResponse } from 'node:http';
import { connect, type Socket } from 'node:net';
import { Transform, type Duplex } from 'node:stream';
import { checkAddress, innerLookup, isAllowed, publicLookup, type AddressPolicy } from './address-policy.js';

/** The one way out of a visit's browser. */
export interface Gate {
  /** Address for the browser's proxy setting. */
  readonly address: string;
  /** Addresses that were refused, each once and cut where they are long. */
  readonly refused: ReadonlySet<string>;
  isRefused(address: string): boolean;
  close(): Promise<void>;
}

export interface GateOptions {
  readonly policy: AddressPolicy;
  readonly totalBytes: number;
  readonly requests: number;
  /** Told when a bound is passed; nothing goes through from then on. */
  readonly onExceeded: (what: 'bytes' | 'requests') => void;
}

/** Headers between a client and its proxy alone. Source: RFC 9110 §7.6.1 and §11.7. */
const HOP_BY_HOP = ['connection', 'proxy-connection', 'proxy-authorization', 'keep-alive', 'te', 'trailer', 'upgrade'];
const CONNECT_MS = 15_000;
/** Of an address that is kept, UTF-16 units; how many there are the bound on requests says. */
const MOST_KEPT = 400;

/**
 * Opens a forward proxy on the loopback address that lets through what the address policy allows: requests, redirects, sub-resources,
 * sockets and workers alike, for a browser that knows no other way out looks no name up itself. Names are looked up here, so that what was
 * checked is what is connected to. Source: RFC 9110 §9.3.6 CONNECT, RFC 9112 §3.2.2 absolute form.
 */
export async function openGate({ policy, totalBytes, requests, onExceeded }: GateOptions): Promise<Gate> {
  const refused = new Set<string>();
  const sockets = new Set<Duplex>();
  const agents = { inner: new Agent({ keepAlive: true }), outer: new Agent({ keepAlive: true }) };
  let bytes = 0;
  let asked = 0;
  let isShut = false;
  const shut = (what: 'bytes' | 'requests'): void => {
    if (isShut) return;
    isShut = true;
    onExceeded(what);
    for (const socket of sockets) socket.destroy();
  };
  const count = (size: number): void => {
    bytes += size;
    if (bytes > totalBytes) shut('bytes');
  };
  const counting = (): Transform =>
    new Transform({
      transform(chunk: Buffer, _encoding, done) {
        count(chunk.length);
        done(null, chunk);
      },
    });
  /** The address where it may be gone to, else `null`. */
  const admit = (text: string): URL | null => {
    asked += 1;
    if (asked > requests) shut('requests');
    if (isShut) return null;
    try {
      return checkAddress(text, policy);
    } catch {
      note(text);
      return null;
    }
  };
  const note = (text: string): void => {
    refused.add(text.slice(0, MOST_KEPT));
  };
  const lookupFor = (url: URL) => (isAllowed(url, policy) ? innerLookup : publicLookup);
  const keep = <T extends Duplex>(socket: T): T => {
    // One that is used again is known.
    if (sockets.has(socket)) return socket;
    sockets.add(socket);
    socket.on('error', () => socket.destroy());
    socket.once('close', () => sockets.delete(socket));
    return socket;
  };

  const server = createServer((incoming: IncomingMessage, answer: ServerResponse) => {
    const refuse = (status: number, words: string): void => {
      if (!answer.headersSent) answer.writeHead(status, { 'content-type': 'text/plain' });
      answer.end(words);
    };
    // Only a browser that was told to ask by it asks for a whole address.
    if (!/^http:\/\//i.test(incoming.url ?? '')) {
      refuse(400, 'This is a proxy of Upper Veneer.');
      return;
    }
    const url = admit(incoming.url ?? '');
    if (!url) {
      refuse(403, 'This address is not asked.');
      return;
    }
    const headers = Object.fromEntries(Object.entries(incoming.headers).filter(([name]) => !HOP_BY_HOP.includes(name)));
    const outgoing = request(
      url,
      {
        method: incoming.method,
        headers,
        lookup: lookupFor(url),
        agent: isAllowed(url, policy) ? agents.inner : agents.outer,
        timeout: CONNECT_MS,
      },
      (came) => {
        const passed = Object.fromEntries(Object.entries(came.headers).filter(([name]) => !HOP_BY_HOP.includes(name)));
        answer.writeHead(came.statusCode ?? 502, passed);
        came.on('error', () => answer.destroy());
        came.pipe(counting()).pipe(answer);
      },
    );
    outgoing.on('socket', keep);
    outgoing.on('timeout', () => outgoing.destroy(new Error('no answer')));
    outgoing.on('error', (error) => {
      if ('code' in error && error.code === 'refused-address') note(url.href);
      refuse(502, 'It did not answer.');
    });
    answer.on('close', () => outgoing.destroy());
    incoming.pipe(outgoing);
  });
  server.on('connect', (incoming: IncomingMessage, socket: Duplex, head: Buffer) => {
    keep(socket);
    // The name and port alone; what kind of address it is for makes no difference to the policy.
    const url = admit(`https://${incoming.url ?? ''}`);
    if (!url) {
      socket.end('HTTP/1.1 403 Forbidden\r\n\r\n');
      return;
    }
    const host = url.hostname.replace(/^\[|\]$/g, '');
    const out = keep(
      connect({ host, port: Number(url.port || 443), lookup: lookupFor(url), timeout: CONNECT_MS }),
    ) as Socket;
    out.once('connect', () => {
      out.setTimeout(0);
      socket.write('HTTP/1.1 200 Connection Established\r\n\r\n');
      out.write(head);
      out.pipe(counting()).pipe(socket);
      socket.pipe(out);
    });
    out.once('timeout', () => out.destroy());
    out.once('error', (error) => {
      if ('code' in error && error.code === 'refused-address') note(url.host);
      socket.end('HTTP/1.1 502 Bad Gateway\r\n\r\n');
    });
    socket.once('close', () => out.destroy());
    out.once('close', () => socket.destroy());
  });
  server.on('connection', keep);
  server.on('clientError', (_error, socket) => socket.destroy());
  const port = await new Promise<number>((done, failed) => {
    server.once('error', failed);
    server.listen(0, '127.0.0.1', () => {
      const bound = server.address();
      done(typeof bound === 'object' && bound ? bound.port : 0);
    });
  });
  return {
    address: `http://127.0.0.1:${port}`,
    refused,
    isRefused: (address) => refused.has(address.slice(0, MOST_KEPT)),
    close: () =>
      new Promise((done) => {
        isShut = true;
        for (const socket of sockets) socket.destroy();
        agents.inner.destroy();
        agents.outer.destroy();
        server.close(() => done());
      }),
  };
}
