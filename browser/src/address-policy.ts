import { message } from '@upper-veneer/words';
import { lookup as dnsLookup, type LookupAddress, type LookupOptions } from 'node:dns';
import ipaddr from 'ipaddr.js';
import { CaptureProblem } from './capture-problem.js';

/** Which addresses the server may fetch from. */
export interface AddressPolicy {
  /** Hosts with port that are allowed though they are on this machine, e.g. `localhost:4311`; `*.localhost:4311` for all names under one. */
  readonly allowedHosts: readonly string[];
  /** Whether private and loopback addresses are allowed at all. */
  readonly allowPrivate: boolean;
}

/**
 * Checks an address before it is asked; host names are checked again when they are looked up.
 * @throws {CaptureProblem} `refused-address`.
 */
export function checkAddress(text: string, policy: AddressPolicy): URL {
  let url: URL;
  try {
    url = new URL(text);
  } catch {
    throw new CaptureProblem('refused-address', message('capture.no-address', { text: text.slice(0, 120) }));
  }
  if (url.protocol !== 'http:' && url.protocol !== 'https:')
    throw new CaptureProblem(
      'refused-address',
      message('capture.other-protocol', { protocol: url.protocol.slice(0, 20) }),
    );
  if (url.username !== '' || url.password !== '')
    throw new CaptureProblem('refused-address', message('capture.address-with-password'));
  if (isAllowed(url, policy)) return url;
  // A name may end with the dot of the root (RFC 1034 §3.1).
  const host = url.hostname.replace(/^\[|\]$/g, '').replace(/\.$/, '');
  if (ipaddr.isValid(host) && isPrivate(host)) throw refusal(host);
  if (/(?:^|\.)(?:localhost|local|internal|lan|home\.arpa)$/i.test(host)) throw refusal(host);
  return url;
}

export function isAllowed(url: URL, { allowedHosts, allowPrivate }: AddressPolicy): boolean {
  const host = url.host.toLowerCase();
  return (
    allowPrivate ||
    allowedHosts.some((allowed) => (allowed.startsWith('*.') ? host.endsWith(allowed.slice(1)) : host === allowed))
  );
}

/** What may be asked on behalf of a page at an address: hosts of this machine by their own pages alone, so that none from outside gets in. */
export function narrowedTo(address: string, policy: AddressPolicy): AddressPolicy {
  const outer: AddressPolicy = { ...policy, allowedHosts: [] };
  try {
    checkAddress(address, outer);
    return outer;
  } catch {
    return policy;
  }
}

/** A look-up that knows names under `localhost` for this machine itself, as browsers do. Source: RFC 6761 §6.3. */
export function innerLookup(
  hostname: string,
  options: LookupOptions,
  done: (error: NodeJS.ErrnoException | null, address: string | LookupAddress[], family?: number) => void,
): void {
  if (!/(?:^|\.)localhost$/i.test(hostname)) dnsLookup(hostname, options, done);
  else if (options.all) done(null, [{ address: '127.0.0.1', family: 4 }]);
  else done(null, '127.0.0.1', 4);
}

/** Anything but a public unicast address; addresses that carry an IPv4 one inside are judged by that. */
export function isPrivate(address: string): boolean {
  const parsed = ipaddr.process(address);
  if (parsed.range() !== 'unicast') return true;
  // The deprecated IPv4-compatible form carries an address of version 4 behind zeros (RFC 4291 §2.5.5.1).
  return parsed instanceof ipaddr.IPv6 && parsed.parts.slice(0, 6).every((part) => part === 0);
}

function refusal(host: string): CaptureProblem {
  return new CaptureProblem('refused-address', message('capture.private-address', { host }));
}

/** A look-up that answers with public addresses only, so that a name cannot lead inside after it was checked. */
export function publicLookup(
  hostname: string,
  options: LookupOptions,
  done: (error: NodeJS.ErrnoException | null, address: string | LookupAddress[], family?: number) => void,
): void {
  dnsLookup(hostname, { ...options, all: true }, (error, addresses) => {
    if (error) {
      done(error, []);
      return;
    }
    const inside = addresses.find(({ address }) => isPrivate(address));
    if (inside) {
      done(refusal(hostname), []);
      return;
    }
    if (options.all) done(null, addresses);
    else done(null, addresses[0].address, addresses[0].family);
  });
}
