import type { UploadFile } from './importer';

/** All files of a drop, folders walked through, each with its path from what was dropped. */
export async function droppedFiles(transfer: DataTransfer): Promise<UploadFile[]> {
  const entries = [...transfer.items].map((item) => item.webkitGetAsEntry()).filter((entry) => entry !== null);
  if (entries.length === 0) return [...transfer.files].map((file) => ({ path: file.name, file }));
  const found: UploadFile[] = [];
  for (const entry of entries) await walk(entry, found);
  return found;
}

/** Files chosen by a file field. */
export function chosenFiles(files: FileList): UploadFile[] {
  return [...files].map((file) => ({ path: file.webkitRelativePath || file.name, file }));
}

/** The server refuses more than this; walking on would only cost time. */
const MOST = 2001;

async function walk(entry: FileSystemEntry, found: UploadFile[]): Promise<void> {
  if (found.length >= MOST) return;
  const path = entry.fullPath.replace(/^\//, '');
  if (entry.isFile) {
    const file = await new Promise<File>((done, failed) => (entry as FileSystemFileEntry).file(done, failed));
    found.push({ path, file });
    return;
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader();
  for (;;) {
    // A reader gives its entries in batches, and none at the end.
    const batch = await new Promise<FileSystemEntry[]>((done, failed) => reader.readEntries(done, failed));
    if (batch.length === 0) return;
    for (const child of batch) await walk(child, found);
  }
}
