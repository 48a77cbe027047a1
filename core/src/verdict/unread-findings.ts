import { clauses, distinct, message } from '../message/message.js';
import type { UnreadPage } from '../site/unread.js';
import type { Finding } from './finding.js';

/** What the verdict could not look at, because it was not read. */
export function unreadFindings(pages: readonly UnreadPage[]): Finding[] {
  const short = pages.filter(({ elements }) => elements > 0);
  const missing = pages.flatMap(({ name, reasons }) => reasons.map((reason) => ({ name, reason })));
  const reasons = distinct(missing.map(({ reason }) => reason));
  const findings: Finding[] = [];
  if (short.length > 0) {
    const count = short.reduce((sum, { elements }) => sum + elements, 0);
    findings.push({
      standing: 'fails',
      text: message('verdict.elements-unread', { count }),
      basis: message('verdict.elements-unread-basis', {
        pages: short.map(({ name, elements }) => `${name} (${elements})`),
      }),
    });
  }
  if (reasons.length > 0) {
    findings.push({
      standing: 'look',
      text: message('verdict.rules-unread', { count: reasons.length }),
      basis: message('verdict.rules-unread-basis', {
        reasons: clauses(reasons.slice(0, MOST_REASONS)),
        more: Math.max(0, reasons.length - MOST_REASONS),
        pages: [...new Set(missing.map(({ name }) => name))].slice(0, MOST_REASONS),
      }),
    });
  }
  return findings;
}

const MOST_REASONS = 6;

/** A finding over a site of which elements were not read: what holds, holds only among those that were. */
export function notProved(finding: Finding): Finding {
  return finding.standing === 'holds'
    ? { ...finding, standing: 'look', text: message('verdict.of-what-was-read', { finding: finding.text }) }
    : finding;
}
