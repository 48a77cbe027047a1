import { Router, type NextFunction, type Request, type Response } from 'express';
import multer, { MulterError } from 'multer';
import { ImportRequest } from '@upper-veneer/contract';
import { message, planProblem } from '@upper-veneer/core';
import { HttpProblem, readBody, readId, noSite } from '../http/problem.js';
import type { AddressPolicy } from '@upper-veneer/browser';
import type { ImportJobs } from '../import/import-jobs.js';
import { importSite } from '../import/import-site.js';
import { LIMITS, megabytes } from '../import/limits.js';
import { uploadMemory } from '../import/upload-memory.js';
import type { Store } from '../store.js';
import type { Visiting } from '../visits/visiting.js';
import type { WorkPool } from '../work/work-pool.js';

export interface ImportRouteOptions {
  readonly store: Store;
  readonly jobs: ImportJobs;
  readonly pool: WorkPool;
  readonly visiting: Visiting;
  readonly policy: () => AddressPolicy;
  readonly now: () => Date;
  /** Told when a site has changed. */
  readonly announce: (siteId: number) => void;
}

/** Bringing sites and pages in: a request starts a job, its events tell how far it is and how it ended. */
export function importRoutes({ store, jobs, pool, visiting, policy, now, announce }: ImportRouteOptions): Router {
  const router = Router();
  const upload = multer({
    storage: uploadMemory,
    preservePath: true,
    limits: {
      fileSize: LIMITS.totalBytes,
      files: LIMITS.files,
      fields: 4,
      fieldSize: 6 * 1024 * 1024,
      fieldNameSize: 100,
    },
    defParamCharset: 'utf8',
  }).array('files', LIMITS.files);
  router.post(
    '/imports',
    boundTotal,
    (request, response, next) => {
      upload(request, response, (error: unknown) =>
        next(error === undefined || error === null ? undefined : toHttpProblem(error)),
      );
    },
    (request, response) => {
      const wish = readBody(ImportRequest, parseWish((request.body as { wish?: unknown }).wish));
      if (wish.siteId != null && !store.sites.byId(wish.siteId)) throw noSite(wish.siteId);
      const wrong = wish.visit ? planProblem(wish.visit) : null;
      if (wrong !== null) throw new HttpProblem(422, 'refused.not-brought-in', wrong);
      if (wish.kind === 'again' && wish.siteId == null)
        throw new HttpProblem(422, 'refused.not-brought-in', message('refusal.captured-as-a-whole'));
      const uploads = ((request.files ?? []) as Express.Multer.File[]).map(({ originalname, buffer }) => ({
        name: originalname,
        body: buffer,
      }));
      const id = jobs.start(async (report, signal) => {
        const result = await importSite(
          { store, pool, visiting, policy: policy(), now },
          { request: wish, uploads },
          report,
          signal,
        );
        announce(result.siteId);
        return result;
      });
      response.status(202).json({ id });
    },
  );
  router.get('/imports/:id/events', async (request, response) => {
    if (!(await jobs.follow(readId(request.params.id), request, response)))
      throw new HttpProblem(404, 'refused.not-found', message('refusal.no-import'));
  });
  router.delete('/imports/:id', (request, response) => {
    if (!jobs.stop(readId(request.params.id)))
      throw new HttpProblem(404, 'refused.not-found', message('refusal.no-import'));
    response.status(204).end();
  });
  return router;
}

function parseWish(text: unknown): unknown {
  try {
    return typeof text === 'string' ? JSON.parse(text) : null;
  } catch {
    return null;
  }
}

/** Refused before it is read, where the request says how long it is. */
function boundTotal(request: Request, _response: Response, next: NextFunction): void {
  const length = Number(request.headers['content-length'] ?? 0);
  // Form boundaries and names come on top of the files.
  if (length > LIMITS.totalBytes + 4 * 1024 * 1024)
    throw new HttpProblem(
      413,
      'refused.not-brought-in',
      message('refusal.files-too-large', { size: megabytes(LIMITS.totalBytes) }),
    );
  next();
}

function toHttpProblem(error: unknown): unknown {
  if (!(error instanceof MulterError))
    return error instanceof Error && /multipart|boundary|form/i.test(error.message)
      ? new HttpProblem(400, 'refused.not-brought-in', message('refusal.upload-unreadable', { error: error.message }))
      : error;
  if (error.code === 'LIMIT_FILE_SIZE')
    return new HttpProblem(
      413,
      'refused.not-brought-in',
      message('refusal.file-too-large', { size: megabytes(LIMITS.totalBytes) }),
    );
  if (error.code === 'LIMIT_FILE_COUNT' || error.code === 'LIMIT_UNEXPECTED_FILE')
    return new HttpProblem(413, 'refused.not-brought-in', message('refusal.too-many-files', { files: LIMITS.files }));
  return new HttpProblem(400, 'refused.not-brought-in', error.message);
}
