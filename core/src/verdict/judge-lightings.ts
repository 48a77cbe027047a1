import { keyOf, message } from '../message/message.js';
import { inEachLighting, type SiteModel } from '../site/site-model.js';
import type { Override } from '../veneer/override.js';
import { plainValuesIn } from '../veneer/override-value.js';
import type { VerdictProgress } from './effects.js';
import type { Finding } from './finding.js';
import { judgeSteps } from './verdict.js';

/**
 * Checks an override in every lighting of its site, the one that is shown first: what fails or is to be looked at in the other
 * alone is said with its lighting, and so is a value that does not follow and suits one of them only.
 * @param width viewport width the page is shown at, CSS px.
 */
export function* judgeLightings(
  site: SiteModel,
  override: Override,
  width: number,
): Generator<VerdictProgress, Finding[]> {
  const [shown, other] = inEachLighting(site);
  const findings = yield* judgeSteps(shown, override, width);
  if (!other) return findings;
  const said = new Set(findings.filter(({ standing }) => standing !== 'holds').map(({ text }) => keyOf(text)));
  const elsewhere = (yield* judgeSteps(other, override, width)).filter(
    ({ standing, text }) => standing !== 'holds' && !said.has(keyOf(text)),
  );
  const lighting = lightingOf(other);
  if (elsewhere.length === 0)
    return [
      ...findings,
      {
        standing: 'holds',
        text: message('verdict.holds-too', { lighting }),
        basis: message('verdict.holds-too-basis', { lighting }),
        spots: [],
      },
    ];
  const named = elsewhere.map((finding) => ({
    ...finding,
    text: message('verdict.in-lighting', { lighting, finding: finding.text }),
    basis: message('verdict.in-lighting-basis', { lighting, basis: finding.basis }),
    // What would mend it is worked out for what is shown.
    repair: undefined,
  }));
  return [...findings, ...named, ...stillFindings(site, override, elsewhere, lighting)];
}

/** What is said of a value that does not follow, where it fails in the other lighting alone. */
function stillFindings(
  site: SiteModel,
  { value }: Override,
  elsewhere: readonly Finding[],
  lighting: string,
): Finding[] {
  const colors = plainValuesIn(value);
  if (colors.every(({ kind }) => kind === 'role') || !elsewhere.some(({ standing }) => standing === 'fails')) return [];
  return [
    {
      standing: 'look',
      text: message('verdict.suits-one-lighting', { lighting: lightingOf(site) }),
      basis: message('verdict.suits-one-lighting-basis', { kind: value.kind, lighting }),
      spots: [],
    },
  ];
}

function lightingOf({ palette }: SiteModel): string {
  return palette.lighting ?? 'light';
}
