import type { UnreadPage } from '../site/unread.js';
import type { Finding } from './finding.js';

/** What the verdict could not look at, because it was not read. */
export function unreadFindings(pages: readonly UnreadPage[]): Finding[] {
  const short = pages.filter(({ elements }) => elements > 0);
  const missing = pages.flatMap(({ name, reasons }) => reasons.map((reason) => ({ name, reason })));
  const reasons = [...new Set(missing.map(({ reason }) => reason))];
  const findings: Finding[] = [];
  if (short.length > 0) {
    const count = short.reduce((sum, { elements }) => sum + elements, 0);
    findings.push({
      standing: 'fails',
      text: `not proved: ${count} ${count === 1 ? 'element' : 'elements'} not read`,
      basis: `Matching the selectors of ${short.map(({ name, elements }) => `${name} (${elements})`).join(', ')} took more steps than the bound. These elements got no rules, so nothing here covers them.`,
    });
  }
  if (reasons.length > 0) {
    findings.push({
      standing: 'look',
      text: reasons.length === 1 ? 'one sheet or rule not read' : `${reasons.length} sheets or rules not read`,
      basis: `${reasons.slice(0, MOST_REASONS).join('; ')}${reasons.length > MOST_REASONS ? ` and ${reasons.length - MOST_REASONS} more` : ''}. On ${[...new Set(missing.map(({ name }) => name))].slice(0, MOST_REASONS).join(', ')}; what they would do is not in this verdict.`,
    });
  }
  return findings;
}

const MOST_REASONS = 6;

/** A finding over a site of which elements were not read: what holds, holds only among those that were. */
export function notProved(finding: Finding): Finding {
  return finding.standing === 'holds'
    ? { ...finding, standing: 'look', text: `${finding.text}, of what was read` }
    : finding;
}
