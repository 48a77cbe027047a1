/// <reference lib="webworker" />

/** One connection to the server's events, for every tab of the browser. */
declare const self: SharedWorkerGlobalScope;

const ports = new Set<MessagePort>();
/** The last word on each site's draft, for tabs that come later. */
const versions = new Map<number, object>();
let source: EventSource | null = null;

function open(): void {
  source = new EventSource('/api/events');
  for (const kind of ['draft', 'tidied'] as const) {
    source.addEventListener(kind, ({ data }: MessageEvent<string>) => {
      const event = { kind, ...JSON.parse(data) as { siteId: number } };
      if (kind === 'draft') versions.set(event.siteId, event);
      for (const port of ports) port.postMessage(event);
    });
  }
}

function admit(port: MessagePort): void {
  ports.add(port);
  if (!source) open();
  else for (const event of versions.values()) port.postMessage(event);
}

self.onconnect = ({ ports: [port] }) => {
  port.onmessage = ({ data }: MessageEvent<'leave' | 'come'>) => {
    if (data === 'come') admit(port);
    else ports.delete(port);
    if (ports.size > 0) return;
    source?.close();
    source = null;
    versions.clear();
  };
  admit(port);
};
