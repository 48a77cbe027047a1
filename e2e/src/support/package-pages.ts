import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';

const require = createRequire(import.meta.url);

/** Text of a file that an installed package ships. */
function shipped(packageName: string, file: string): string {
  return readFileSync(join(dirname(require.resolve(`${packageName}/package.json`)), file), 'utf8');
}

const VARIANTS = ['primary', 'secondary', 'success', 'danger', 'warning', 'info', 'light', 'dark'] as const;
const each = (make: (variant: string) => string): string => VARIANTS.map(make).join('\n');

/** Components of a general page, under the class names of the bootstrap package. */
export const BOOTSTRAP_BODY = `
<nav class="navbar navbar-expand-lg bg-body-tertiary"><div class="container-fluid"><a class="navbar-brand" href="#">Withy</a><button class="navbar-toggler" type="button"><span class="navbar-toggler-icon"></span></button>
<ul class="navbar-nav"><li class="nav-item"><a class="nav-link active" aria-current="page" href="#">Home</a></li><li class="nav-item"><a class="nav-link" href="#x">Boats</a></li><li class="nav-item dropdown"><a class="nav-link dropdown-toggle show" href="#">More</a>
<ul class="dropdown-menu show"><li><a class="dropdown-item" href="#">One</a></li><li><a class="dropdown-item active" href="#">Two</a></li><li><hr class="dropdown-divider"></li><li><a class="dropdown-item disabled">Three</a></li></ul></li></ul></div></nav>
<main class="container"><h1 class="display-4">Canoes <small class="text-body-secondary">for hire</small></h1><p class="lead">Slow <a href="#">river</a> and <mark>fast</mark> <code>water</code>, <kbd>K</kbd>.</p>
${each((v) => `<button type="button" class="btn btn-${v}">${v}</button><button type="button" class="btn btn-outline-${v}">${v}</button><a class="btn btn-${v} disabled" href="#">${v}</a>`)}
<button class="btn btn-link btn-lg">Link</button><div class="btn-group"><input type="radio" class="btn-check" id="b1" checked><label class="btn btn-outline-primary" for="b1">A</label><input type="checkbox" class="btn-check" id="b2"><label class="btn btn-outline-primary" for="b2">B</label></div>
${each((v) => `<div class="alert alert-${v}" role="alert">A <a href="#" class="alert-link">link</a><button class="btn-close"></button></div><span class="badge text-bg-${v}">${v}</span><p class="text-${v} bg-${v}-subtle border border-${v} rounded-3">${v}</p>`)}
<div class="card text-bg-dark mb-3"><div class="card-header">Header</div><div class="card-body"><h5 class="card-title">Title</h5><p class="card-text">Text</p><a href="#" class="card-link">Link</a></div><div class="card-footer text-body-secondary">Footer</div></div>
<table class="table table-striped table-hover table-bordered"><caption>c</caption><thead class="table-dark"><tr><th>a</th><th>b</th></tr></thead><tbody class="table-group-divider"><tr><td>1</td><td>2</td></tr><tr class="table-active"><td>3</td><td>4</td></tr><tr><td class="table-warning">5</td><td>6</td></tr></tbody></table>
<form class="was-validated"><label class="form-label" for="e">E</label><input type="email" class="form-control" id="e" placeholder="you" required><div class="invalid-feedback">No.</div><input class="form-control is-invalid" value="x"><input class="form-control" disabled value="d"><input class="form-control" readonly>
<select class="form-select"><option>1</option></select><div class="form-check"><input class="form-check-input" type="checkbox" checked id="c"><label class="form-check-label" for="c">c</label></div><div class="form-check form-switch"><input class="form-check-input" type="checkbox" role="switch"></div><input type="range" class="form-range">
<div class="input-group"><span class="input-group-text">@</span><input class="form-control"></div><div class="form-floating"><textarea class="form-control" placeholder="f"></textarea><label>f</label></div></form>
<ul class="list-group"><li class="list-group-item active">a</li><li class="list-group-item list-group-item-action">b</li><li class="list-group-item disabled">c</li><li class="list-group-item list-group-item-warning">d</li></ul>
<nav><ol class="breadcrumb"><li class="breadcrumb-item"><a href="#">H</a></li><li class="breadcrumb-item active">L</li></ol></nav><ul class="pagination"><li class="page-item disabled"><a class="page-link">P</a></li><li class="page-item active"><a class="page-link" href="#">1</a></li><li class="page-item"><a class="page-link" href="#">2</a></li></ul>
<ul class="nav nav-tabs"><li class="nav-item"><a class="nav-link active" href="#">A</a></li><li class="nav-item"><a class="nav-link" href="#">B</a></li></ul><ul class="nav nav-pills"><li class="nav-item"><a class="nav-link active" href="#">A</a></li></ul>
<div class="progress"><div class="progress-bar progress-bar-striped bg-success" style="width: 25%">25</div></div><div class="spinner-border text-primary"></div><div class="accordion"><div class="accordion-item"><h2 class="accordion-header"><button class="accordion-button">A</button></h2><div class="accordion-collapse collapse show"><div class="accordion-body">x</div></div></div></div>
<div class="toast show"><div class="toast-header">T</div><div class="toast-body">B</div></div><div class="modal-content"><div class="modal-header"><h5 class="modal-title">M</h5></div><div class="modal-body">x</div></div><figure class="figure"><figcaption class="figure-caption">f</figcaption></figure>
<blockquote class="blockquote"><p>q</p><footer class="blockquote-footer">w</footer></blockquote><p class="text-decoration-line-through fw-bold fst-italic text-uppercase opacity-50 shadow-lg link-danger"><a class="link-primary link-underline-opacity-25 icon-link" href="#">u</a></p>
<div data-bs-theme="dark" class="bg-body text-body p-3"><a href="#">dark</a><button class="btn btn-primary">d</button><input class="form-control"></div><dl class="row"><dt class="col-3">t</dt><dd class="col-9">d</dd></dl><details><summary>s</summary>x</details></main>`;

const DAYS = Array.from(
  { length: 35 },
  (_, i) =>
    `<span class="flatpickr-day${i < 3 ? ' prevMonthDay' : ''}${i === 12 ? ' selected startRange' : i === 13 ? ' inRange' : i === 14 ? ' selected endRange' : ''}${i === 20 ? ' today' : ''}${i === 25 ? ' flatpickr-disabled' : ''}" tabindex="-1">${i + 1}</span>`,
).join('');

const FLATPICKR_BODY = `<input class="flatpickr-input active" readonly value="2026-06-14"><div class="flatpickr-calendar hasTime animate open arrowTop showTimeInput" tabindex="-1"><div class="flatpickr-months"><span class="flatpickr-prev-month"><svg viewBox="0 0 17 17"><path d="M5 8h8"/></svg></span>
<div class="flatpickr-month"><div class="flatpickr-current-month"><select class="flatpickr-monthDropdown-months"><option class="flatpickr-monthDropdown-month">June</option></select><div class="numInputWrapper"><input class="numInput cur-year" type="number"><span class="arrowUp"></span><span class="arrowDown"></span></div></div></div><span class="flatpickr-next-month flatpickr-disabled"><svg viewBox="0 0 17 17"><path d="M5 8h8"/></svg></span></div>
<div class="flatpickr-innerContainer"><div class="flatpickr-rContainer"><div class="flatpickr-weekdays"><div class="flatpickr-weekdaycontainer"><span class="flatpickr-weekday">Mon</span></div></div><div class="flatpickr-days"><div class="dayContainer">${DAYS}</div></div></div></div>
<div class="flatpickr-time"><div class="numInputWrapper"><input class="numInput flatpickr-hour" type="number"><span class="arrowUp"></span></div><span class="flatpickr-time-separator">:</span><span class="flatpickr-am-pm" tabindex="-1">AM</span></div></div>`;

const OPEN_PROPS_BODY = `<header><h1>Reeds</h1><nav><a href="#a">One</a> <a href="#b">Two</a></nav></header><main><p>Text with <mark>mark</mark>, <code>code</code>, <kbd>k</kbd>, <a href="#">link</a>, <abbr title=x>abbr</abbr>, <del>d</del> <ins>i</ins>.</p><button>Button</button><button type=submit>Go</button><button type=reset disabled>No</button>
<form><fieldset><legend>L</legend><label>N <input placeholder="p" required></label><input type=checkbox checked><input type=radio><input type=range><input type=file><select><option>o</option></select><textarea></textarea><progress></progress></fieldset></form><table><caption>c</caption><thead><tr><th>a</th></tr></thead><tbody><tr><td>1</td></tr></tbody><tfoot><tr><td>f</td></tr></tfoot></table>
<details open><summary>s</summary>d</details><dialog open>d</dialog><blockquote>q</blockquote><pre><code>x</code></pre><figure><figcaption>c</figcaption></figure><hr><ul><li>a</ul><dl><dt>t<dd>d</dl><svg viewBox="0 0 4 4"><path d="M0 0"/></svg><small>s</small></main>
<style>header { background: var(--surface-2); color: var(--text-1); box-shadow: var(--shadow-3) } main { color: var(--blue-7); border: var(--border-size-2) solid var(--gray-4); background: var(--gradient-3) } nav a:hover { color: var(--orange-6) } .x { color: oklch(from var(--red-5) l c h / 50%) }</style>`;

/** Pages made with other packages' stylesheets, by path, with the sheets they link. */
export function packagePages(): ReadonlyMap<string, string> {
  const page = (sheets: readonly string[], body: string): string =>
    `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>t</title>${sheets.map((sheet) => `<link rel="stylesheet" href="css/${sheet}">`).join('')}</head><body>${body}</body></html>`;
  return new Map([
    ['css/bootstrap.css', shipped('bootstrap', 'dist/css/bootstrap.css')],
    ['css/flatpickr.css', shipped('flatpickr', 'dist/flatpickr.css')],
    ['css/open-props.css', shipped('open-props', 'open-props.min.css')],
    ['css/open-props-normalize.css', shipped('open-props', 'normalize.min.css')],
    ['css/open-props-buttons.css', shipped('open-props', 'buttons.min.css')],
    ['bootstrap.html', page(['bootstrap.css'], BOOTSTRAP_BODY)],
    ['flatpickr.html', page(['flatpickr.css'], FLATPICKR_BODY)],
    [
      'open-props.html',
      page(['open-props.css', 'open-props-normalize.css', 'open-props-buttons.css'], OPEN_PROPS_BODY),
    ],
  ]);
}
