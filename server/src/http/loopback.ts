import ipaddr from 'ipaddr.js';

/** Whether an address is this machine's own, as sockets write it: IPv4, IPv6, or the one in the other. */
export function isLoopback(address: string | undefined): boolean {
  return address !== undefined && ipaddr.isValid(address) && ipaddr.process(address).range() === 'loopback';
}
