/// <reference lib="webworker" />
import { openEvents, type LiveEvent } from './open-events';

/** One connection to the server's events, for every tab of the browser. */
declare const self: SharedWorkerGlobalScope;

const ports = new Set<MessagePort>();
/** The last word on each site's draft, for tabs that come later. */
const versions = new Map<number, LiveEvent>();
let close: (() => void) | null = null;

function tell(event: LiveEvent): void {
  if (event.kind === 'draft') versions.set(event.siteId, event);
  for (const port of ports) port.postMessage(event);
}

function admit(port: MessagePort): void {
  ports.add(port);
  if (close) for (const event of versions.values()) port.postMessage(event);
  else close = openEvents(tell);
}

function dismiss(port: MessagePort): void {
  ports.delete(port);
  if (ports.size > 0) return;
  close?.();
  close = null;
  versions.clear();
}

self.onconnect = ({ ports: [port] }) => {
  port.onmessage = ({ data }: MessageEvent<'leave' | 'come'>) => (data === 'come' ? admit(port) : dismiss(port));
  admit(port);
};
