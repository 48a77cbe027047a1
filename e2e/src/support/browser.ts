import { chromium, type Browser } from 'playwright-core';

/** Debian's Chromium, without anything that would look for the network. */
export function launchBrowser({ showsScrollbars = false }: { readonly showsScrollbars?: boolean } = {}): Promise<Browser> {
  return chromium.launch({
    ...(showsScrollbars ? { ignoreDefaultArgs: ['--hide-scrollbars'] } : {}),
    executablePath: process.env['CHROME_BIN'] ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
  });
}
