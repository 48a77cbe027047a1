import { readFileSync, readdirSync, statSync } from 'node:fs';
import { join, relative } from 'node:path';
import { dressSite, openSite } from '@upper-veneer/core';
import { root } from './setup.mjs';

/** The demo's site as the core opens it, its palette with its roles. */
export function demoSite() {
  const folder = join(root, 'demo/site');
  const about = JSON.parse(readFileSync(join(root, 'demo/site.json'), 'utf8'));
  const stylesheets = {};
  const walk = (at) => {
    for (const name of readdirSync(at)) {
      const path = join(at, name);
      if (statSync(path).isDirectory()) walk(path);
      else if (name.endsWith('.css')) stylesheets[relative(folder, path)] = readFileSync(path, 'utf8');
    }
  };
  walk(folder);
  const swatches = about.swatches.map(({ name, css }, i) => ({ id: i + 1, name, css }));
  return dressSite(
    openSite({
      pages: about.pages.map(({ name, path }, i) => ({
        id: i + 1,
        name,
        path,
        html: readFileSync(join(folder, path), 'utf8'),
      })),
      stylesheets,
      parts: about.parts.map((part, i) => ({ openers: [], ...part, id: i + 1 })),
      veneerPlace: about.veneerPlace,
      prefix: about.prefix,
    }),
    [],
    {
      swatches,
      roles: about.roles.map(({ role, swatch, shade }) => ({
        role,
        shade,
        swatchId: swatches.find(({ name }) => name === swatch)?.id,
      })),
    },
  );
}
