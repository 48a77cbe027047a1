import type { LeftOutFile } from '@upper-veneer/contract';
import { message } from '@upper-veneer/core';
import type { AddressPolicy, PlanResult, TakenDocument } from '@upper-veneer/browser';
import type { Capture, CapturedFile, ReportProgress } from './captured.js';
import { fetchFor } from './fetch-address.js';

/**
 * Pages that a browser took, with what they look by. What it did not get itself, such as a picture for another width, is fetched.
 * @throws {CaptureProblem} past the bounds.
 */
export async function captureVisited(
  { pages, files, notes }: PlanResult,
  policy: AddressPolicy,
  report: ReportProgress,
): Promise<Capture> {
  const documents = pages.flatMap((page) => [
    { ...documentOf(page), ...(page.name === '' ? {} : { name: page.name }) },
    ...page.frames.map(documentOf),
  ]);
  const { files: all, leftOut } = await fetchFor(documents, files.map(withBody), policy, report);
  const missing = pages.flatMap(({ name, title, address, lost }) =>
    lost.map((what): LeftOutFile => ({
      path: name || title || address,
      reason: message('left-out.not-in-copy', { what }),
    })),
  );
  const said = notes.map((reason): LeftOutFile => ({ path: pages[0]?.base ?? '', reason }));
  return { files: all, leftOut: [...leftOut, ...missing, ...said], pages: pages.map(({ address }) => address) };
}

function documentOf({ address, base, html }: TakenDocument): CapturedFile {
  return { address, base, mediaType: 'text/html', charset: 'utf-8', body: Buffer.from(html, 'utf8') };
}

/** Buffers are bytes alone after they went from one thread to another. */
function withBody(file: CapturedFile): CapturedFile {
  return { ...file, body: Buffer.from(file.body.buffer, file.body.byteOffset, file.body.byteLength) };
}
