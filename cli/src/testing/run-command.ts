import { execFile } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { run } from '../main.js';

const COMMAND = fileURLToPath(new URL('../../bin/upper-veneer.mjs', import.meta.url));

export interface Answer {
  readonly code: number;
  readonly out: string;
  readonly err: string;
}

/** Runs a command in a process of its own, as a shell does. */
export function runInShell(...args: readonly string[]): Promise<Answer> {
  return new Promise((done) =>
    execFile(process.execPath, [COMMAND, ...args], { maxBuffer: 64_000_000 }, (error, out, err) =>
      done({ code: typeof error?.code === 'number' ? error.code : 0, out, err }),
    ),
  );
}

/** Runs a command in this process: the same, without the start that each process takes. Commands are run one at a time. */
export async function runHere(...args: readonly string[]): Promise<Answer> {
  const written = { out: '', err: '' };
  const [out, err] = [process.stdout, process.stderr].map((stream) => stream.write.bind(stream));
  const taking =
    (name: keyof typeof written) =>
    (chunk: Uint8Array | string, ...more: readonly unknown[]): boolean => {
      written[name] += typeof chunk === 'string' ? chunk : Buffer.from(chunk).toString();
      const told = more.find((one): one is () => void => typeof one === 'function');
      told?.();
      return true;
    };
  process.stdout.write = taking('out');
  process.stderr.write = taking('err');
  try {
    return { code: await run(args), ...written };
  } finally {
    process.stdout.write = out;
    process.stderr.write = err;
  }
}
