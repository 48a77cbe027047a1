import type { ImportRequest, ImportResult } from '@upper-veneer/contract';
import { createParser } from 'eventsource-parser';

/** Runs an import to its end, as the web client does. @throws when it is refused before it begins. */
export async function runImport(url: string, wish: Partial<ImportRequest>, file?: Blob): Promise<ImportResult> {
  const form = new FormData();
  form.append('wish', JSON.stringify(wish));
  if (file) form.append('files', file, 'x.zip');
  const started = (await (await fetch(`${url}/api/imports`, { method: 'POST', body: form })).json()) as {
    id?: number;
    detail?: string;
  };
  if (started.id === undefined) throw new Error(`Not begun: ${started.detail ?? ''}`);
  const text = await (await fetch(`${url}/api/imports/${started.id}/events`)).text();
  let end: ImportResult | null = null;
  createParser({
    onEvent: ({ event, data }) => {
      if (event === 'end') end = JSON.parse(data) as ImportResult;
    },
  }).feed(text);
  if (!end) throw new Error(`Without an end: ${text.slice(-400)}`);
  return end;
}
