/** Words as HTML that means nothing else, in text and in quoted attributes. Source: HTML §13.3, escaping a string. */
export function escapeHtml(words: string): string {
  return words.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
}
