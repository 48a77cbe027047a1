import { writeFile } from 'node:fs/promises';

/** Writes to the screen, or to a file where one is named. */
export async function write(text: string, path: string | undefined): Promise<void> {
  if (path !== undefined) return writeFile(path, text);
  await new Promise<void>((done) => process.stdout.write(text, () => done()));
}
