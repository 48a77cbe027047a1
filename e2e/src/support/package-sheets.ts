import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);

/** Stylesheets of packages of different schools: frameworks of components, utilities, sheets without classes, old ones, and single widgets. */
const SHEETS = [
  ['bootstrap', 'dist/css/bootstrap.css'],
  ['bulma', 'css/bulma.css'],
  ['@picocss/pico', 'css/pico.css'],
  ['foundation-sites', 'dist/css/foundation.css'],
  ['spectre.css', 'dist/spectre.css'],
  ['milligram', 'dist/milligram.css'],
  ['tachyons', 'css/tachyons.css'],
  ['purecss', 'build/pure.css'],
  ['water.css', 'out/water.css'],
  ['mvp.css', 'mvp.css'],
  ['skeleton-css', 'css/skeleton.css'],
  ['choices.js', 'public/assets/styles/choices.css'],
  ['sweetalert2', 'dist/sweetalert2.css'],
  ['vanilla-cookieconsent', 'dist/cookieconsent.css'],
  ['uikit', 'dist/css/uikit.css'],
  ['materialize-css', 'dist/css/materialize.css'],
  ['bootstrap-3', 'dist/css/bootstrap.css'],
  ['flatpickr', 'dist/flatpickr.css'],
] as const;

/** Stylesheet of a package, by a short name. */
export interface PackageSheet {
  readonly name: string;
  readonly css: string;
}

/** All of them; only those whose name holds a word, when one is given. */
export function packageSheets(word = ''): PackageSheet[] {
  return SHEETS.filter(([name]) => name.includes(word)).map(([name, file]) => ({
    name: name.replace(/\W+/g, '-').replace(/^-/, ''),
    css: readFileSync(join(folderOf(name), file), 'utf8'),
  }));
}

/** Folder of an installed package; some do not let their `package.json` be resolved. */
function folderOf(name: string): string {
  for (const folder of require.resolve.paths(name) ?? []) {
    try {
      readFileSync(join(folder, name, 'package.json'));
      return join(folder, name);
    } catch {
      // It is in one of the folders further up.
    }
  }
  return dirname(require.resolve(`${name}/package.json`));
}
