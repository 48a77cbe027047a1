import { BOOTSTRAP_BODY } from './package-pages.js';
import { packageSheets } from './package-sheets.js';

/** A page that shows what general sheets style. */
const GENERAL_BODY = `<header><h1>Reeds</h1><nav><a href="#a">One</a> <a href="#b">Two</a></nav></header><main><section><h2>Boats</h2><p>Text with <mark>mark</mark>, <code>code</code>, <kbd>k</kbd> and a <a href="#">link</a>, <del>d</del> <ins>i</ins>. A paragraph goes on for a while, so that it has some lines to be read.</p><button type=submit>Go</button> <button class="secondary">Later</button> <button disabled>No</button>
<form><label>Name <input placeholder="p" required></label><input type=checkbox checked><select><option>o</option></select><textarea placeholder="t"></textarea><button type=submit>Send</button></form><table><caption>c</caption><thead><tr><th>a</th><th>b</th></tr></thead><tbody><tr><td>1</td><td>2</td></tr><tr><td>3</td><td>4</td></tr></tbody></table>
<article><header>Head</header>An article<footer>Foot</footer></article><details open><summary>s</summary>d</details><blockquote>q<footer>w</footer></blockquote><pre><code>x</code></pre><figure><figcaption>c</figcaption></figure><hr><small>s</small></section></main><footer>Foot <a href="#f">link</a></footer>`;

/** A consent box under the class names of the package, shown. */
const CONSENT_BODY = `<p>A page under it, with a paragraph of its own.</p><div id="cc-main"><div class="cm-wrapper"><div class="cm cm--box cm--bottom" role="dialog"><div class="cm__body"><div class="cm__texts"><h2 class="cm__title">Cookies</h2><p class="cm__desc">We use a few, see <a href="#p">how</a>.</p></div><div class="cm__btns"><div class="cm__btn-group"><button type="button" class="cm__btn" data-role="all"><span>Accept</span></button><button type="button" class="cm__btn" data-role="necessary"><span>Only needed</span></button></div><div class="cm__btn-group"><button type="button" class="cm__btn cm__btn--secondary" data-role="show"><span>Manage</span></button></div></div></div><div class="cm__footer"><div class="cm__links"><div class="cm__link-group"><a href="#a">Privacy</a><a href="#b">Terms</a></div></div></div></div></div></div>`;

/** The packages whose makers name their colours by job, each with a page made of what it styles. */
const BODIES: readonly (readonly [name: string, body: string])[] = [
  ['bootstrap', BOOTSTRAP_BODY],
  ['picocss-pico', GENERAL_BODY],
  ['mvp-css', GENERAL_BODY],
  ['water-css', GENERAL_BODY],
  ['vanilla-cookieconsent', CONSENT_BODY],
];

/** The same pages whole, each with its package's sheet in it. */
export function namedPages(): { readonly name: string; readonly html: string }[] {
  const sheets = new Map(packageSheets().map(({ name, css }) => [name, css]));
  return BODIES.map(([name, body]) => {
    const style = `<style>${sheets.get(name) ?? ''}</style>`;
    return {
      name,
      html: `<!doctype html><html lang="en" class="show--consent"><head>${style}</head><body>${body}</body></html>`,
    };
  });
}
