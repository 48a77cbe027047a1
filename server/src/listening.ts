import { randomBytes } from 'node:crypto';
import { hostname, networkInterfaces } from 'node:os';

/** Where the program listens, and who can reach it there. */
export interface Listening {
  readonly address: string;
  /** Whether other machines may reach it. */
  readonly isOpen: boolean;
  /** Host names it answers to besides this machine's own, as a browser sends them. */
  readonly names: readonly string[];
  /** Name under which others find it; `localhost` where none can. */
  readonly name: string;
  /** Host by which the program reaches itself. */
  readonly itself: string;
  /** What opens it to others; empty where none can reach it. */
  readonly token: string;
}

const LOOPBACK = /^(?:127\.\d{1,3}\.\d{1,3}\.\d{1,3}|::1|localhost)$/;
const EVERYWHERE: ReadonlySet<string> = new Set(['0.0.0.0', '::']);
/** Characters a token of one's own has at least. */
const LEAST_TOKEN = 8;

/** @throws {RangeError} for a token too short to keep anyone out. */
export function listeningAt(address: string, givenToken: string | undefined): Listening {
  if (LOOPBACK.test(address))
    return { address, isOpen: false, names: [], name: 'localhost', itself: asHost(address), token: '' };
  if (givenToken !== undefined && givenToken !== '' && givenToken.length < LEAST_TOKEN)
    throw new RangeError(`ACCESS_TOKEN must have ${LEAST_TOKEN} characters or more`);
  const outer = Object.values(networkInterfaces()).flatMap((all) =>
    (all ?? []).filter(({ internal }) => !internal).map((own) => own.address),
  );
  const names = EVERYWHERE.has(address) ? [...outer.map(asHost), hostname().toLowerCase()] : [asHost(address)];
  return {
    address,
    isOpen: true,
    names,
    name: names[0] ?? hostname().toLowerCase(),
    itself: EVERYWHERE.has(address) ? '127.0.0.1' : asHost(address),
    token: givenToken || randomBytes(12).toString('base64url'),
  };
}

/** An address as it stands in a `Host` header. */
function asHost(address: string): string {
  return address.includes(':') ? `[${address}]` : address.toLowerCase();
}
