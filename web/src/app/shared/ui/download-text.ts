/** Hands a text to the browser as a file to save. */
export function downloadText(name: string, mediaType: string, text: string): void {
  downloadBlob(name, new Blob([text], { type: mediaType }));
}

/** Hands a file to the browser to save. */
export function downloadBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url));
}

/** A name without what file systems take amiss: letters, digits and hyphens of any script. */
export function fileNameOf(name: string): string {
  return name.replace(/[^\p{L}\p{N}]+/gu, '-').replace(/^-|-$/g, '') || 'site';
}
