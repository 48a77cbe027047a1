import { message } from '@upper-veneer/words';
import { chromium, type Browser } from 'playwright-core';
import { BOUNDS } from './bounds.js';
import { CaptureProblem } from './capture-problem.js';
import { firstLine } from './plain-words.js';
import { isSandboxed } from './sandbox.js';

/** Nothing of the browser's own asks for anything, and no page gets past the gate. */
const SWITCHES = [
  '--disable-quic',
  '--no-first-run',
  '--disable-gpu',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
  '--no-pings',
  // Consent bars and chat bubbles stay away from browsers that say they are driven, and visitors get them.
  '--disable-blink-features=AutomationControlled',
  '--force-webrtc-ip-handling-policy=disable_non_proxied_udp',
  '--webrtc-ip-handling-policy=disable_non_proxied_udp',
  '--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE 127.0.0.1',
  '--renderer-process-limit=8',
  '--js-flags=--max-old-space-size=768',
];
/**
 * Starts a browser that knows no way out but a proxy.
 * @throws {CaptureProblem} `no-browser` when it does not start.
 */
export async function startBrowser(program: string, proxy: string): Promise<Browser> {
  try {
    return await chromium.launch({
      executablePath: program,
      proxy: { server: proxy },
      args: SWITCHES,
      chromiumSandbox: isSandboxed(),
      timeout: BOUNDS.openMs,
    });
  } catch (error) {
    // Its own log, which says so, stands under the first line.
    const isRefused =
      isSandboxed() && error instanceof Error && /no usable sandbox|sandbox_host|setuid sandbox/i.test(error.message);
    throw new CaptureProblem(
      'no-browser',
      isRefused
        ? message('capture.no-sandbox', { program })
        : message('capture.browser-does-not-start', { program, error: firstLine(error) }),
    );
  }
}
