import { say } from '@upper-veneer/words';
import { PROOF_KINDS, type ProofKind } from '@upper-veneer/core';
import type { Log, Result } from 'sarif';
import type { Checked } from './check-site.js';
import { placeAsJson, wordsOf } from './write-findings.js';

/** What each group asks. */
const RULES: Readonly<Record<ProofKind, string>> = {
  reads: 'Text can be read on what lies behind it, in every state (WCAG 2.2, 1.4.3 and 1.4.1).',
  seen: 'Edges of controls, icons, carets, thumbs and the focus can be seen (WCAG 2.2, 1.4.11 and 2.4.7).',
  answers: 'States tell themselves apart, and none shows what is not ours.',
  ours: 'Every painted colour is one of the brand.',
  inside: 'A rule changes nothing outside its reach.',
  holds: 'Every rule of the sheet matches, wins and changes something.',
  eyes: 'What tells things apart is seen without hue, and in forced colours (WCAG 2.2, 1.4.1).',
};

/** Places of a finding that are handed over. */
const MOST_PLACES = 100;

/** The findings as SARIF. Source: Static Analysis Results Interchange Format (SARIF) Version 2.1.0, OASIS Standard. */
export function findingsAsSarif(checked: Checked): string {
  const log: Log = {
    $schema: 'https://docs.oasis-open.org/sarif/sarif/v2.1.0/errata01/os/schemas/sarif-schema-2.1.0.json',
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'upper-veneer',
            rules: PROOF_KINDS.map((kind) => ({ id: kind, shortDescription: { text: RULES[kind] } })),
          },
        },
        results: checked.proof.findings.map((finding): Result => ({
          ruleId: finding.kind,
          ruleIndex: PROOF_KINDS.indexOf(finding.kind),
          level: finding.level === 'fails' ? 'error' : 'warning',
          message: { text: wordsOf(finding) },
          locations: finding.places.slice(0, MOST_PLACES).map((place) => {
            const { page, selector, pseudo, ...at } = placeAsJson(checked, place);
            return {
              physicalLocation: { artifactLocation: { uri: encodeURI(page) } },
              logicalLocations: [
                { fullyQualifiedName: `${selector}${pseudo === '' ? '' : `::${pseudo}`}`, kind: 'element' },
              ],
              properties: at,
            };
          }),
          partialFingerprints: { 'cause/v1': finding.id },
          properties: {
            figure: finding.figure,
            needed: finding.needed,
            unit: finding.unit,
            places: finding.places.length,
          },
        })),
        invocations: [
          {
            executionSuccessful: true,
            toolExecutionNotifications: checked.proof.unseen.map(({ what, reason }) => ({
              level: 'note',
              message: { text: `Not looked at: ${say(what)}: ${say(reason)}` },
            })),
          },
        ],
      },
    ],
  };
  return `${JSON.stringify(log, null, 2)}\n`;
}
