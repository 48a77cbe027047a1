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
  const said = new Set(findings.filter(({ standing }) => standing !== 'holds').map(({ text }) => text));
  const elsewhere = (yield* judgeSteps(other, override, width)).filter(
    ({ standing, text }) => standing !== 'holds' && !said.has(text),
  );
  const name = wordsOf(other);
  if (elsewhere.length === 0)
    return [
      ...findings,
      {
        standing: 'holds',
        text: name === 'light' ? 'holds in the light too' : 'holds inverted too',
        basis: `Everything above was looked at once more in the ${name} lighting; nothing fails there that does not fail here.`,
        spots: [],
      },
    ];
  const named = elsewhere.map((finding) => ({
    ...finding,
    text: `${name}: ${finding.text}`,
    basis: `In the ${name} lighting. ${finding.basis}`,
    // What would mend it is worked out for what is shown.
    repair: undefined,
  }));
  return [...findings, ...named, ...stillFindings(site, override, elsewhere, name)];
}

/** What is said of a value that does not follow, where it fails in the other lighting alone. */
function stillFindings(site: SiteModel, { value }: Override, elsewhere: readonly Finding[], name: string): Finding[] {
  const colors = plainValuesIn(value);
  if (colors.every(({ kind }) => kind === 'role') || !elsewhere.some(({ standing }) => standing === 'fails')) return [];
  return [
    {
      standing: 'look',
      text: `suits the ${wordsOf(site)} lighting only`,
      basis: `Its value is ${value.kind === 'swatch' ? 'a swatch' : 'a plain one'} and stays as it is when the site turns ${name}; a role would follow.`,
      spots: [],
    },
  ];
}

function wordsOf({ palette }: SiteModel): string {
  return palette.lighting ?? 'light';
}
