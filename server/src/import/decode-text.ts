import sniffHtmlEncoding from 'html-encoding-sniffer';
import iconv from 'iconv-lite';

export interface DecodedText {
  readonly text: string;
  /** Encoding it was read in, as the Encoding Standard names it. */
  readonly encoding: string;
  /** Characters that the encoding has no meaning for. */
  readonly unreadable: number;
}

/** Text of a page by byte-order mark, transport, `<meta>`, or windows-1252. Source: HTML §13.2.3.2. */
export function decodeHtml(body: Buffer, charset: string): DecodedText {
  const label = sniffHtmlEncoding(body, {
    ...(charset === '' ? {} : { transportLayerEncodingLabel: charset }),
    defaultEncoding: isUtf8(body) ? 'UTF-8' : 'windows-1252',
  });
  return decode(body, label);
}

/** Text of a stylesheet by byte-order mark, transport, `@charset`, the page's encoding, or UTF-8; the `@charset` is taken off. Source: CSS Syntax 3 §3.2. */
export function decodeCss(body: Buffer, charset: string, pageEncoding = ''): DecodedText {
  const bom = bomOf(body);
  const declared = /^@charset "([^"]{1,60})";/.exec(body.subarray(0, 1024).toString('latin1'))?.[1] ?? '';
  // A sheet that can be read byte by byte is no UTF-16, whatever it says.
  const own = /^utf-16/i.test(declared) ? 'utf-8' : declared;
  const label = bom || known(charset) || known(own) || known(pageEncoding) || 'utf-8';
  const decoded = decode(body, label);
  return { ...decoded, text: decoded.text.replace(/^@charset "[^"]*";\s*/, '') };
}

function decode(body: Buffer, label: string): DecodedText {
  const decoder = new TextDecoder(known(label) || 'utf-8');
  // Node 20 reads windows-1252 as ISO-8859-1, which has no euro sign nor curly quotes.
  const text = decoder.encoding === 'windows-1252' ? iconv.decode(body, 'windows-1252') : decoder.decode(body);
  return { text, encoding: decoder.encoding, unreadable: text.split('\ufffd').length - 1 };
}

function known(label: string): string {
  try {
    return label === '' ? '' : new TextDecoder(label.trim()).encoding;
  } catch {
    return '';
  }
}

function bomOf(body: Buffer): string {
  if (body[0] === 0xef && body[1] === 0xbb && body[2] === 0xbf) return 'utf-8';
  if (body[0] === 0xff && body[1] === 0xfe) return 'utf-16le';
  return body[0] === 0xfe && body[1] === 0xff ? 'utf-16be' : '';
}

function isUtf8(body: Buffer): boolean {
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(body);
    return true;
  } catch {
    return false;
  }
}
