import { createSession, type Session } from 'better-sse';
import type { Request, Response } from 'express';

/** What keeps proxies from closing a quiet stream, ms. */
const HEARTBEAT_MS = 20_000;
/** When a browser that lost the stream comes back, ms. */
const RETRY_MS = 2_000;

/** Open streams of server-sent events, all told the same. Source: HTML §9.2. */
export interface EventStreams {
  /** Opens a stream. @param first told before anything else; asked once the stream stands. */
  open(request: Request, response: Response, first: () => readonly StreamEvent[]): Promise<void>;
  tell(event: StreamEvent): void;
  end(): void;
}

export interface StreamEvent {
  readonly name: string;
  readonly data: object;
}

export function createEventStreams(): EventStreams {
  const open = new Map<Session, Response>();
  return {
    async open(request, response, first) {
      const session = await createSession(request, response, {
        retry: RETRY_MS,
        keepAlive: HEARTBEAT_MS,
        headers: { 'cache-control': 'no-store', 'x-accel-buffering': 'no' },
      });
      if (!session.isConnected) return;
      // From here to the last line nothing is waited for, so that no event falls between.
      for (const { name, data } of first()) session.push(data, name);
      open.set(session, response);
      session.once('disconnected', () => open.delete(session));
    },
    tell({ name, data }) {
      for (const session of open.keys()) if (session.isConnected) session.push(data, name);
    },
    end() {
      for (const response of open.values()) response.end();
      open.clear();
    },
  };
}
