import { wordsOf } from '@upper-veneer/words';
/** What a document says that came in the place of a page: the server's reason, or that there was no answer. */
export function troubleIn(content: Document | null): string {
  const text = content?.body?.textContent?.trim() ?? '';
  if (text === '') return wordsOf('screen.server-does-not-answer-sentence');
  try {
    const { detail } = JSON.parse(text) as { readonly detail?: unknown };
    return typeof detail === 'string' && detail !== ''
      ? detail.charAt(0).toUpperCase() + detail.slice(1)
      : wordsOf('screen.server-refused-sentence');
  } catch {
    return text.slice(0, 200);
  }
}
