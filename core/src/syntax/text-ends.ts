/** The text before the first of some characters; all of it without one. */
export function upTo(text: string, marks: string): string {
  for (let i = 0; i < text.length; i += 1) if (marks.includes(text[i])) return text.slice(0, i);
  return text;
}

/** The text without some characters at its end. */
export function withoutEnd(text: string, marks: string): string {
  let end = text.length;
  while (end > 0 && marks.includes(text[end - 1])) end -= 1;
  return text.slice(0, end);
}

/** What stands between the commas of a text that stand in no parentheses, trimmed. */
export function betweenCommas(text: string): string[] {
  const parts: string[] = [];
  let depth = 0;
  let start = 0;
  for (let i = 0; i < text.length; i += 1) {
    if (text[i] === '(') depth += 1;
    else if (text[i] === ')') depth -= 1;
    else if (text[i] === ',' && depth === 0) {
      parts.push(text.slice(start, i).trim());
      start = i + 1;
    }
  }
  return [...parts, text.slice(start).trim()];
}
