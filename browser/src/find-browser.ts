import { accessSync, constants } from 'node:fs';

/** Where Chromium and Chrome usually are. */
const USUAL: Readonly<Partial<Record<NodeJS.Platform, readonly string[]>>> = {
  linux: [
    '/usr/bin/chromium',
    '/usr/bin/chromium-browser',
    '/usr/bin/google-chrome-stable',
    '/usr/bin/google-chrome',
    '/opt/google/chrome/chrome',
    '/snap/bin/chromium',
  ],
  darwin: [
    '/Applications/Google Chrome.app/Contents/MacOS/Google Chrome',
    '/Applications/Chromium.app/Contents/MacOS/Chromium',
  ],
  win32: [
    'C:\\Program Files\\Google\\Chrome\\Application\\chrome.exe',
    'C:\\Program Files (x86)\\Google\\Chrome\\Application\\chrome.exe',
  ],
};

/** The Chromium or Chrome of this machine: `CHROME_BIN`, else at one of the usual places; `null` where there is none. */
export function findBrowser(environment: NodeJS.ProcessEnv = process.env): string | null {
  const named = environment['CHROME_BIN'];
  return (named ? [named] : (USUAL[process.platform] ?? [])).find(canRun) ?? null;
}

function canRun(path: string): boolean {
  try {
    accessSync(path, constants.X_OK);
    return true;
  } catch {
    return false;
  }
}
