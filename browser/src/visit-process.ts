import { errorText, message, type Message } from '@upper-veneer/words';
import { fork, type ChildProcess } from 'node:child_process';
import { mkdtemp, readdir, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CaptureProblem } from './capture-problem.js';
import type { VisitHandle, VisitOptions } from './visit.js';

/** What is asked of the process, and what it answers. */
export interface VisitCall {
  readonly id: number;
  readonly call: 'start' | Exclude<keyof VisitHandle, 'close'>;
  readonly input: unknown;
}
export type VisitAnswer =
  | { readonly id: number; readonly ok: true; readonly result: unknown }
  | { readonly id: number; readonly ok: false; readonly code: CaptureProblem['code']; readonly told: Message | string };

/** Begins the name of the folder with a visit's profile, followed by the process that asked for it. */
export const PROFILE_PREFIX = 'upper-veneer-visit-';
const CLOSING_MS = 3000;

/** How long a process that nobody has asked yet stands ready, ms. */
const READY_MS = 5 * 60_000;

let ready: { readonly remote: Promise<RemoteVisit>; readonly timer: NodeJS.Timeout } | null = null;

/** Has a process stand ready for the next visit, where one is to be expected: what it runs by takes a while to be read. */
export function prepareVisit(): void {
  if (ready) return;
  const remote = begin();
  // Told to whoever asks for the visit.
  remote.catch(() => undefined);
  const timer = setTimeout(dropReady, READY_MS);
  timer.unref();
  ready = { remote, timer };
}

/** Ends the process that stands ready, if there is one. */
export function dropReady(): void {
  const dropped = ready;
  ready = null;
  clearTimeout(dropped?.timer);
  void dropped?.remote.then(
    (remote) => remote.close(),
    () => undefined,
  );
}

/**
 * Starts a visit in a process of its own, so that neither a page nor its browser can hold up, fill or end the one that asks. Its profile is
 * in a folder of its own, which goes with it.
 * @throws {CaptureProblem} `no-browser`; `stopped` when the signal says so before it is there.
 */
export async function startVisitProcess(options: VisitOptions, signal?: AbortSignal): Promise<VisitHandle> {
  const taken = ready;
  ready = null;
  clearTimeout(taken?.timer);
  const remote = await (taken?.remote ?? begin());
  const stop = (): void => void remote.close();
  signal?.addEventListener('abort', stop, { once: true });
  try {
    if (signal?.aborted) throw new CaptureProblem('stopped', message('capture.visit-stopped'));
    await remote.call('start', options);
    return remote;
  } catch (error) {
    await remote.close();
    throw error;
  }
}

async function begin(): Promise<RemoteVisit> {
  await sweep();
  const folder = await mkdtemp(join(tmpdir(), `${PROFILE_PREFIX}${process.pid}-`)).catch((error: unknown) => {
    throw new CaptureProblem(
      'no-browser',
      message('capture.no-profile', {
        folder: tmpdir(),
        error: errorText(error),
      }),
    );
  });
  const child = fork(fileURLToPath(new URL('./visit-worker.js', import.meta.url)), {
    serialization: 'advanced',
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
    // What opens the product is nothing for a browser.
    env: { ...process.env, ACCESS_TOKEN: undefined, TMPDIR: folder, TMP: folder, TEMP: folder },
    execArgv: ['--max-old-space-size=512'],
  });
  return new RemoteVisit(child, folder);
}

/** Removes the profiles of processes that ended without doing so. */
async function sweep(): Promise<void> {
  for (const name of await readdir(tmpdir()).catch(() => [])) {
    if (!name.startsWith(PROFILE_PREFIX)) continue;
    const owner = Number.parseInt(name.slice(PROFILE_PREFIX.length), 10);
    if (Number.isInteger(owner) && !isRunning(owner))
      await rm(join(tmpdir(), name), { recursive: true, force: true }).catch(() => undefined);
  }
}

function isRunning(id: number): boolean {
  try {
    process.kill(id, 0);
    return true;
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}

class RemoteVisit implements VisitHandle {
  readonly #waiting = new Map<number, { done: (value: unknown) => void; refuse: (problem: CaptureProblem) => void }>();
  readonly #gone: Promise<void>;
  #next = 1;
  #closing: Promise<void> | null = null;

  constructor(
    private readonly child: ChildProcess,
    private readonly folder: string,
  ) {
    child.on('message', (answer: VisitAnswer) => {
      const waiting = this.#waiting.get(answer.id);
      this.#waiting.delete(answer.id);
      if (answer.ok) waiting?.done(answer.result);
      else waiting?.refuse(new CaptureProblem(answer.code, answer.told));
    });
    child.on('error', () => undefined);
    this.#gone = new Promise((done) => child.once('exit', () => done()));
    void this.#gone.then(() => {
      const problem = this.#closing
        ? new CaptureProblem('stopped', message('capture.visit-stopped'))
        : new CaptureProblem('not-fetched', message('capture.visit-ended-itself'));
      for (const { refuse } of this.#waiting.values()) refuse(problem);
      this.#waiting.clear();
      void this.close();
    });
  }

  call<T>(call: VisitCall['call'], input: unknown): Promise<T> {
    const id = this.#next;
    this.#next += 1;
    return new Promise<T>((done, refuse) => {
      if (this.#closing || !this.child.connected) {
        refuse(new CaptureProblem('stopped', message('capture.visit-stopped')));
        return;
      }
      this.#waiting.set(id, { done: done as (value: unknown) => void, refuse });
      this.child.send({ id, call, input } satisfies VisitCall);
    });
  }

  open = (address: string): Promise<void> => this.call('open', address);
  act: VisitHandle['act'] = (step) => this.call('act', step);
  see: VisitHandle['see'] = () => this.call('see', null);
  take: VisitHandle['take'] = (name) => this.call('take', name);
  files: VisitHandle['files'] = () => this.call('files', null);
  notes: VisitHandle['notes'] = () => this.call('notes', null);

  close(): Promise<void> {
    this.#closing ??= this.#end();
    return this.#closing;
  }

  async #end(): Promise<void> {
    // It closes its browser when nobody speaks to it any more.
    if (this.child.connected) this.child.disconnect();
    const timer = setTimeout(() => this.child.kill('SIGKILL'), CLOSING_MS);
    if (this.child.exitCode === null && this.child.signalCode === null) await this.#gone;
    clearTimeout(timer);
    // The browser's last processes may still be writing.
    await rm(this.folder, { recursive: true, force: true, maxRetries: 10, retryDelay: 100 }).catch(() => undefined);
  }
}
