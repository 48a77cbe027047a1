import { lookup } from 'mime-types';
import { upTo } from '@upper-veneer/core';

/** Kinds of files a site needs to look as it does, by media type. */
const KEPT =
  /^(?:text\/css|image\/(?:png|jpeg|gif|webp|avif|svg\+xml|x-icon|vnd\.microsoft\.icon|bmp)|font\/.+|application\/(?:font-.+|x-font-.+|vnd\.ms-fontobject))$/;
const HTML = /^(?:text\/html|application\/xhtml\+xml)$/;
const SCRIPT =
  /^(?:text|application)\/(?:javascript|x-javascript|ecmascript|typescript|wasm)$|^application\/(?:json|manifest\+json|ld\+json)$/;

export type FileKind = 'page' | 'asset' | 'script' | 'other';

/** Media type of a file: as its source gives it, else by its name, else by its first bytes. */
export function mediaTypeOf(address: string, given: string, body: Buffer): string {
  const byName = lookup(upTo(address, '?#').split('/').pop() ?? '') || '';
  if (given !== '' && given !== 'application/octet-stream' && given !== 'text/plain') return given;
  if (byName !== '' && byName !== 'application/octet-stream') return byName;
  return looksLikeHtml(body) ? 'text/html' : given;
}

export function kindOf(mediaType: string): FileKind {
  if (HTML.test(mediaType)) return 'page';
  if (KEPT.test(mediaType)) return 'asset';
  return SCRIPT.test(mediaType) ? 'script' : 'other';
}

/** Whether a body begins as a page does. */
export function looksLikeHtml(body: Buffer): boolean {
  let text = body
    .subarray(0, 1024)
    .toString('latin1')
    .replace(/^(?:\xef\xbb\xbf|\xff\xfe|\xfe\xff)/, '')
    .replaceAll('\0', '')
    .trimStart();
  while (text.startsWith('<!--')) {
    const end = text.indexOf('-->', 4);
    if (end === -1) return false;
    text = text.slice(end + 3).trimStart();
  }
  return /^<(?:!doctype\s+html|html|head|body)\b/i.test(text);
}

/** Whether the bytes are what a picture's or font's type says; a wrong type would show nothing. */
export function hasSignature(mediaType: string, body: Buffer): boolean {
  const head = body.subarray(0, 16);
  const starts = (...bytes: number[]): boolean => bytes.every((byte, i) => head[i] === byte);
  switch (mediaType) {
    case 'image/png':
      return starts(0x89, 0x50, 0x4e, 0x47);
    case 'image/jpeg':
      return starts(0xff, 0xd8, 0xff);
    case 'image/gif':
      return starts(0x47, 0x49, 0x46, 0x38);
    case 'image/webp':
      return starts(0x52, 0x49, 0x46, 0x46) && head.toString('latin1', 8, 12) === 'WEBP';
    case 'image/svg+xml':
      return /<svg[\s>]/i.test(body.subarray(0, 65_536).toString('latin1').replaceAll('\0', ''));
    default:
      return true;
  }
}
