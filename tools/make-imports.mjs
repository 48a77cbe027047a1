import { createWriteStream, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join, relative, sep } from 'node:path';
import { finished } from 'node:stream/promises';
import { ZipFile } from 'yazl';
import { ensureBuilt, ensureChromium, ensureDependencies, root, say } from './setup.mjs';

/** Writes the saved copies in demo/imports: the demo's files as a zip, and its home page as Chromium archives it. */
await ensureDependencies();
await ensureChromium();
await ensureBuilt(['core', 'contract', 'snapshot', 'browser', 'server', 'web', 'e2e']);
const { launchBrowser } = await import('../e2e/dist/support/browser.js');
const { startProduct, temporaryFolder } = await import('../e2e/dist/support/product.js');

const target = join(root, 'demo/imports');
mkdirSync(target, { recursive: true });

const site = join(root, 'demo/site');
const zip = new ZipFile();
const files = readdirSync(site, { recursive: true, withFileTypes: true })
  .filter((entry) => entry.isFile())
  .map((entry) => join(entry.parentPath, entry.name))
  .sort();
// One date for all, so that the same files make the same archive.
for (const file of files)
  zip.addBuffer(readFileSync(file), `osier-and-reed/${relative(site, file).split(sep).join('/')}`, {
    mtime: new Date(2026, 0, 1),
    mode: 0o100644,
  });
zip.end();
await finished(zip.outputStream.pipe(createWriteStream(join(target, 'osier-and-reed.zip'))));
say('demo/imports/osier-and-reed.zip');

const folder = temporaryFolder();
const product = await startProduct(folder.path, { HOST_PORT: '4399' });
const browser = await launchBrowser();
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
await page.goto('http://localhost:4399/1/index.html', { waitUntil: 'networkidle' });
const session = await page.context().newCDPSession(page);
const { data } = await session.send('Page.captureSnapshot', { format: 'mhtml' });
writeFileSync(join(target, 'home-page.mhtml'), data);
say('demo/imports/home-page.mhtml');
await browser.close();
await product.kill();
folder.remove();
