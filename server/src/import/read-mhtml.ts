import type { LeftOutFile } from '@upper-veneer/contract';
import { errorText } from '@upper-veneer/words';
import { message } from '@upper-veneer/core';
import { Splitter, type MimeNode } from 'mailsplit';
import type { Capture, CapturedFile, ReportProgress } from './captured.js';
import { CaptureProblem } from '@upper-veneer/browser';
import { LIMITS, megabytes } from './limits.js';

/**
 * Reads an MHTML web archive: one page with what it needs, each part under the address it came from.
 * Source: RFC 2557; parts are found by `Content-Location`, or `Content-ID` as `cid:`.
 * @throws {CaptureProblem} when it is no such archive or grows past the bounds.
 */
export async function readMhtml(archive: Buffer, report: ReportProgress): Promise<Capture> {
  const parts = await splitParts(archive, report);
  const files: CapturedFile[] = [];
  const leftOut: LeftOutFile[] = [];
  let start = '';
  for (const { node, body } of parts) {
    const location = unfolded(node.headers.getFirst('content-location'));
    const id = unfolded(node.headers.getFirst('content-id')).replace(/^<|>$/g, '');
    const address = location || (id ? `cid:${id}` : '');
    const mediaType = String(node.contentType || '').toLowerCase();
    if (address === '') {
      leftOut.push({ path: mediaType || 'a part', reason: message('left-out.part-without-address') });
      continue;
    }
    if (body.length > LIMITS.fileBytes) {
      leftOut.push({ path: address, reason: message('left-out.larger', { size: megabytes(LIMITS.fileBytes) }) });
      continue;
    }
    files.push({ address, mediaType, charset: String(node.charset || ''), body });
    // Frames refer to their documents by Content-ID whether or not they have a location too.
    if (location && id) files.push({ address: `cid:${id}`, mediaType, charset: String(node.charset || ''), body });
    if (start === '' && /^text\/html|^application\/xhtml/.test(mediaType)) start = address;
  }
  if (start === '') throw new CaptureProblem('no-page', message('capture.web-archive-empty'));
  return { files, leftOut, pages: [start] };
}

interface MimePart {
  readonly node: MimeNode;
  readonly body: Buffer;
}

function splitParts(archive: Buffer, report: ReportProgress): Promise<MimePart[]> {
  return new Promise((done, failed) => {
    const parts: { node: MimeNode; decoder: NodeJS.ReadWriteStream; chunks: Buffer[] }[] = [];
    const waiting: Promise<void>[] = [];
    let total = 0;
    const splitter = new Splitter({ maxHeadSize: 64 * 1024, ignoreEmbedded: true });
    const fail = (error: unknown): void => {
      splitter.destroy();
      failed(
        error instanceof CaptureProblem
          ? error
          : new CaptureProblem(
              'unreadable',
              message('capture.web-archive-unreadable', {
                error: errorText(error),
              }),
            ),
      );
    };
    splitter.on('data', (piece: { readonly type: string; readonly value?: Buffer }) => {
      if (piece.type === 'node') {
        const node = piece as unknown as MimeNode;
        parts.at(-1)?.decoder.end();
        if (node.multipart) return;
        if (parts.length >= LIMITS.files) {
          fail(new CaptureProblem('too-many', message('capture.web-archive-parts', { parts: LIMITS.files })));
          return;
        }
        const decoder = node.getDecoder() as NodeJS.ReadWriteStream;
        const chunks: Buffer[] = [];
        waiting.push(
          new Promise((ended, broken) => {
            decoder.on('data', (chunk: Buffer) => {
              total += chunk.length;
              if (total > LIMITS.totalBytes)
                broken(
                  new CaptureProblem(
                    'too-large',
                    message('capture.web-archive-too-large', { size: megabytes(LIMITS.totalBytes) }),
                  ),
                );
              else chunks.push(chunk);
            });
            decoder.on('end', () => ended());
            decoder.on('error', broken);
          }),
        );
        parts.push({ node, decoder, chunks });
        try {
          report(message('stage.unpacking'), parts.length, 0);
        } catch (error) {
          fail(error);
        }
      } else if (piece.type === 'body' && piece.value) {
        parts.at(-1)?.decoder.write(piece.value);
      }
    });
    splitter.on('error', fail);
    splitter.on('end', () => {
      parts.at(-1)?.decoder.end();
      if (parts.length === 0) fail(new CaptureProblem('unreadable', message('capture.no-web-archive')));
      else
        Promise.all(waiting).then(
          () => done(parts.map(({ node, chunks }) => ({ node, body: Buffer.concat(chunks) }))),
          fail,
        );
    });
    splitter.end(archive);
  });
}

function unfolded(value: unknown): string {
  return typeof value === 'string' ? value.replace(/\s+/g, '').trim() : '';
}

/** Whether a file begins as a message with MIME parts does. */
export function looksLikeMhtml(body: Buffer): boolean {
  const head = body.subarray(0, 8192).toString('latin1');
  return /^content-type:\s*multipart\/related/im.test(head) && /^mime-version:/im.test(head);
}
