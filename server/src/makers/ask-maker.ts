import { errorText } from '@upper-veneer/words';
import { message } from '@upper-veneer/core';
import { Agent, request, type Dispatcher } from 'undici';
import { HttpProblem } from '../http/problem.js';
import { checkAddress, innerLookup, isAllowed, publicLookup, type AddressPolicy } from '@upper-veneer/browser';

/** An answer that has not come by then does not come, ms. */
const PATIENCE_MS = 8_000;
/** Longest answer that is read, bytes. */
const MOST_BYTES = 512 * 1024;

/** What a maker's service answered. */
interface MakerAnswer {
  readonly status: number;
  readonly body: string;
  /** Seconds after which it may be asked again; `null` where it does not say. */
  readonly retryAfter: number | null;
}

/** Reads what a maker offers at an address. @throws {HttpProblem} with what came instead; {@link CaptureProblem} for an address that is not asked. */
export async function readMaker(address: string, policy: AddressPolicy): Promise<string> {
  const answer = await ask(address, policy, { method: 'GET' });
  refuse(answer);
  return answer.body;
}

/** Hands values over, by the maker's names. @throws {HttpProblem} when they were not taken: nothing counts as handed over then. */
export async function sendToMaker(
  address: string,
  policy: AddressPolicy,
  values: Readonly<Record<string, string>>,
): Promise<void> {
  refuse(await ask(address, policy, { method: 'PUT', body: JSON.stringify({ values }) }));
}

async function ask(
  address: string,
  policy: AddressPolicy,
  { method, body }: { readonly method: 'GET' | 'PUT'; readonly body?: string },
): Promise<MakerAnswer> {
  const url = checkAddress(address, policy);
  const dispatcher: Dispatcher = new Agent({
    connect: { lookup: isAllowed(url, policy) ? innerLookup : publicLookup },
    connectTimeout: PATIENCE_MS,
    headersTimeout: PATIENCE_MS,
    bodyTimeout: PATIENCE_MS,
    maxResponseSize: MOST_BYTES,
  });
  try {
    // A redirect is not followed: it could lead where the address policy would not.
    const answer = await request(url, {
      method,
      dispatcher,
      headers: { accept: 'application/json', ...(body === undefined ? {} : { 'content-type': 'application/json' }) },
      ...(body === undefined ? {} : { body }),
    });
    const wait = String(answer.headers['retry-after'] ?? '');
    return {
      status: answer.statusCode,
      body: await answer.body.text(),
      retryAfter: /^\d{1,6}$/.test(wait) ? Number(wait) : null,
    };
  } catch (error) {
    throw new HttpProblem(502, 'refused.not-answered', message('refusal.maker-silent', { error: errorText(error) }));
  } finally {
    await dispatcher.destroy();
  }
}

function refuse({ status, body, retryAfter }: MakerAnswer): void {
  if (status >= 200 && status < 300) return;
  if (status === 429)
    throw new HttpProblem(
      429,
      'refused.asked-too-often',
      retryAfter === null
        ? message('refusal.maker-busy')
        : message('refusal.maker-busy-until', { seconds: retryAfter }),
    );
  const reason = reasonIn(body);
  throw new HttpProblem(
    422,
    'refused.not-taken',
    reason === null
      ? message('refusal.maker-answered', { status })
      : message('refusal.maker-answered-why', { status, reason }),
  );
}

/** The reason in an answer, if it is a problem document or short plain text. */
function reasonIn(body: string): string | null {
  try {
    const document = JSON.parse(body) as unknown;
    if (typeof document === 'object' && document !== null && 'detail' in document)
      return String(document.detail).slice(0, 300);
  } catch {
    // Not JSON: its text is shown as it is.
  }
  return body.trim() !== '' && body.length < 200 && !body.includes('<') ? body.trim() : null;
}
