import { message } from '@upper-veneer/core';
import type { Request } from 'express';
import type { StorageEngine } from 'multer';
import { CaptureProblem } from '@upper-veneer/browser';
import { LIMITS, megabytes } from './limits.js';

const taken = new WeakMap<Request, number>();

/** Keeps uploaded files in memory, all files of a request within one bound, whatever length it says it has. */
export const uploadMemory: StorageEngine = {
  _handleFile(request, file, done) {
    const chunks: Buffer[] = [];
    file.stream.on('data', (chunk: Buffer) => {
      const total = (taken.get(request) ?? 0) + chunk.length;
      taken.set(request, total);
      if (total > LIMITS.totalBytes) {
        chunks.length = 0;
        file.stream.destroy(
          new CaptureProblem('too-large', message('refusal.files-too-large', { size: megabytes(LIMITS.totalBytes) })),
        );
      } else chunks.push(chunk);
    });
    file.stream.once('error', (error) => done(error));
    file.stream.once('end', () => {
      const buffer = Buffer.concat(chunks);
      done(null, { buffer, size: buffer.length });
    });
  },
  _removeFile(_request, file, done) {
    file.buffer = Buffer.alloc(0);
    done(null);
  },
};
