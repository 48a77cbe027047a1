/** What the server says by itself. */
export type LiveEvent =
  | { readonly kind: 'draft'; readonly siteId: number; readonly version: number }
  | { readonly kind: 'tidied'; readonly siteId: number; readonly done: number; readonly total: number };

const KINDS = ['draft', 'tidied'] as const;
/** An answer that is no stream ends a source for good; ms until another is tried. */
const AGAIN_MS = 2000;

/** Connects to the server's events and stays connected until the function it gives back is called. */
export function openEvents(tell: (event: LiveEvent) => void): () => void {
  let source: EventSource;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const connect = (): void => {
    source = new EventSource('/api/events');
    for (const kind of KINDS)
      source.addEventListener(kind, ({ data }: MessageEvent<string>) =>
        tell({ kind, ...(JSON.parse(data) as object) } as LiveEvent),
      );
    source.onerror = () => {
      if (source.readyState === EventSource.CLOSED) timer = setTimeout(connect, AGAIN_MS);
    };
  };
  connect();
  return () => {
    clearTimeout(timer);
    source.close();
  };
}
