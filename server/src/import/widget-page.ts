import { message } from '@upper-veneer/core';
import type { Capture } from './captured.js';
import { CaptureProblem } from '@upper-veneer/browser';

/** The HTML and CSS of one widget as someone pasted them, made a page of its own. */
export function readWidget(html: string, css: string, name: string): Capture {
  if (html.trim() === '') throw new CaptureProblem('no-page', message('capture.no-widget'));
  const title = name.replace(/[<>&]/g, ' ');
  const page = /<(?:html|body)[\s>]/i.test(html)
    ? html
    : `<!doctype html>\n<html lang="en">\n<head>\n<meta charset="utf-8">\n<title>${title}</title>\n</head>\n<body>\n${html}\n</body>\n</html>\n`;
  const linked =
    css.trim() === ''
      ? page
      : /<\/head\s*>/i.test(page)
        ? page.replace(/<\/head\s*>/i, (end) => `<link rel="stylesheet" href="widget.css">\n${end}`)
        : `<link rel="stylesheet" href="widget.css">\n${page}`;
  const file = (address: string, mediaType: string, text: string): Capture['files'][number] => ({
    address,
    mediaType,
    charset: 'utf-8',
    body: Buffer.from(text, 'utf8'),
  });
  return {
    files: [
      file('index.html', 'text/html', linked),
      ...(css.trim() === '' ? [] : [file('widget.css', 'text/css', css)]),
    ],
    leftOut: [],
    pages: ['index.html'],
  };
}
