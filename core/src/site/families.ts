import type { SiteModel } from './site-model.js';

/** Font families that stylesheets of the site name, in the order they are met; those that wait on a custom property are left out. */
export function familiesOf(site: SiteModel): string[] {
  const found = new Set<string>();
  for (const page of site.pages.values()) {
    for (const rule of page.base.rules) {
      if (rule.sheet.origin === 'user-agent') continue;
      for (const { name, value } of rule.declarations)
        if (name === 'font-family' && !/var\(|^(?:inherit|initial|unset|revert)/i.test(value)) found.add(value);
    }
  }
  return [...found].slice(0, 24);
}
