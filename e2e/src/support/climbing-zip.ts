import { ZipFile } from 'yazl';

/** A zip whose one entry climbs out of the archive, as a hostile tool would write it. */
export async function climbingZip(): Promise<Buffer> {
  const zip = new ZipFile();
  // yazl refuses such a path, so it is written over a harmless one of the same length.
  zip.addBuffer(Buffer.from('<p>x'), 'xxxxxxoutside.html', { compress: false });
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer);
  return Buffer.from(Buffer.concat(chunks).toString('latin1').replaceAll('xxxxxx', '../../'), 'latin1');
}
