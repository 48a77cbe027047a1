/** The parts of mailsplit used here; it ships no types. */
declare module 'mailsplit' {
  import type { Transform } from 'node:stream';

  export interface MimeNode {
    readonly type: 'node';
    readonly multipart: string | false;
    readonly contentType: string | false;
    readonly charset: string | false;
    readonly headers: { getFirst(name: string): string };
    getDecoder(): NodeJS.ReadWriteStream;
  }

  export class Splitter extends Transform {
    constructor(options?: { readonly maxHeadSize?: number; readonly ignoreEmbedded?: boolean });
  }
}

declare module 'html-encoding-sniffer' {
  export default function sniff(
    body: Uint8Array,
    options?: { readonly transportLayerEncodingLabel?: string; readonly defaultEncoding?: string },
  ): string;
}
