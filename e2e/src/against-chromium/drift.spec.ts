import {
  CENSUS_STATES,
  StyleView,
  allInState,
  driftOf,
  dressSite,
  longhandsOfProperty,
  matchedInAnyState,
  openSite,
  pageOf,
  proposeDrift,
  reanchorOverride,
  toEnd,
  withOverrides,
  type CensusState,
  type FormerCapture,
  type Override,
  type Page,
  type SiteModel,
} from '@upper-veneer/core';
import { matchedDemo } from '../support/matched-demo.js';
import { themeUpdate, type ThemeUpdate } from '../support/theme-updates.js';
import { isWhole, turn } from '../support/whole-run.js';

/** Updates that are drawn, at most; in the sample until so many of them changed an override. */
const UPDATES = isWhole ? 100 : 20;
const TELLING = isWhole ? UPDATES : 3;

/** What an update truly did to an override: by who its targets were, which the update itself knows. */
interface Truth {
  readonly isOther: boolean;
  /** Where its targets are now, as `page:element`. */
  readonly targets: ReadonlySet<string>;
}

describe('drift after a theme’s update', () => {
  let site: SiteModel;
  beforeAll(() => {
    site = matchedDemo();
  });

  // The truth is the update's own: it knows what each element was; what is painted is resolved before and after.
  it(`tells every override that changed effect over drawn updates, and leads nine in ten right at the first proposal`, () => {
    const sum = { changed: 0, told: 0, untold: [] as string[], falsely: 0, asked: 0, right: 0, wrong: [] as string[] };
    let [telling, drawn] = [0, 0];
    for (let i = 0; i < UPDATES && telling < TELLING; i += 1) {
      const seed = isWhole ? i : turn * UPDATES + i;
      const before = sum.changed;
      drawn += 1;
      const update = themeUpdate({ pages: site.source.pages, stylesheets: site.source.stylesheets }, seed);
      const { after, formers } = capturedAgain(site, update);
      const drifts = new Map(toEnd(driftOf(after, formers)).map((drift) => [drift.override.id, drift]));
      for (const override of after.overrides) {
        const truth = truthOf(site, after, update, override);
        const drift = drifts.get(override.id);
        if (truth.isOther) {
          sum.changed += 1;
          if (drift) sum.told += 1;
          else sum.untold.push(`${seed}: ${override.selector} { ${override.property} }, ${update.done.join(', ')}`);
        } else if (drift) sum.falsely += 1;
        if (!drift || drift.lost.length === 0 || truth.targets.size === 0) continue;
        sum.asked += 1;
        const proposal = proposeDrift(after, drift);
        if (!proposal.ok) continue;
        if (isRight(after, proposal, override.id, { ...truth, pages: update.pages })) sum.right += 1;
        else sum.wrong.push(`${seed}: ${override.selector} to ${proposal.put[0]?.selector ?? 'nothing'}`);
      }
      if (sum.changed > before) telling += 1;
    }
    process.stdout.write(
      `\nDrift over ${drawn} updates: ${sum.told} of ${sum.changed} overrides that changed effect are told, ${sum.falsely} told that did not; ${sum.right} of ${sum.asked} led right at the first proposal.\n`,
    );
    expect(sum.untold).withContext('not told').toEqual([]);
    expect(sum.changed).toBeGreaterThanOrEqual(isWhole ? UPDATES : TELLING);
    // Of a few, one that no selector tells any more is more than a tenth; that is said, and none may be led wrong.
    if (isWhole) expect(sum.right / sum.asked).toBeGreaterThanOrEqual(0.9);
    else expect(sum.wrong).withContext('led wrong').toEqual([]);
  });
});

/** The site with its pages captured again, overrides led to their elements as the server does it. */
function capturedAgain(
  before: SiteModel,
  { pages, stylesheets }: ThemeUpdate,
): { readonly after: SiteModel; readonly formers: FormerCapture[] } {
  const source = {
    ...before.source,
    stylesheets,
    pages: before.source.pages.map((page) => ({ ...page, html: pages.get(page.id)?.html ?? page.html })),
  };
  const bare = openSite(source);
  let overrides: readonly Override[] = before.overrides;
  for (const { id } of source.pages)
    overrides = overrides.map((own) => reanchorOverride(pageOf(before, id), pageOf(bare, id), id, own).override);
  const formers = before.source.pages.map(({ id, html }, i) => ({
    id: i + 1,
    pageId: id,
    html,
    stylesheets: before.source.stylesheets,
    overrides: before.overrides,
  }));
  return { after: dressSite(bare, overrides, before.palette), formers };
}

function truthOf(before: SiteModel, after: SiteModel, update: ThemeUpdate, override: Override): Truth {
  const was = before.overrides.find(({ id }) => id === override.id) ?? override;
  const targets = new Set<string>();
  let isOther = false;
  for (const [pageId, page] of after.pages) {
    const own = update.pages.get(pageId)?.was ?? [];
    const matchedBefore = new Set(matchedInAnyState(pageOf(before, pageId), was.selector).map(({ number }) => number));
    // A new element of the kind is what such a rule is for.
    const matched = new Set(
      matchedInAnyState(page, override.selector).flatMap(({ number }) =>
        (own[number] ?? null) === null ? [] : [number],
      ),
    );
    const expected = own.flatMap((number, now) => (number !== null && matchedBefore.has(number) ? [now] : []));
    expected.forEach((now) => targets.add(`${pageId}:${now}`));
    isOther ||= expected.length !== matched.size || expected.some((now) => !matched.has(now));
    isOther ||= expected.length !== matchedBefore.size;
    isOther ||= expected.some(
      (now) => !shows(page, now, override) && shows(pageOf(before, pageId), own[now] ?? 0, was),
    );
  }
  return { isOther, targets };
}

/** Whether an element shows what an override declares, in its state. */
function shows(page: Page, number: number, override: Override): boolean {
  const { state, property, pseudo } = override;
  if (property.startsWith('--') || !(CENSUS_STATES as readonly string[]).includes(state)) return true;
  const view = new StyleView(page, { states: allInState(page.document, state as CensusState) });
  const style = view.style(page.document.elements[number], pseudo);
  return longhandsOfProperty(property).every(
    (longhand) => style.seen(longhand).ranked(longhand).at(0)?.block.rule?.sheet.name === 'veneer.css',
  );
}

function isRight(
  after: SiteModel,
  proposal: { readonly put: readonly Override[]; readonly drop: readonly string[] },
  id: string,
  { targets, pages }: Truth & Pick<ThemeUpdate, 'pages'>,
): boolean {
  const next = withOverrides(after, proposal);
  const override = next.overrides.find((own) => own.id === id);
  if (!override) return false;
  const reached = [...next.pages].flatMap(([pageId, page]) =>
    matchedInAnyState(page, override.selector).flatMap(({ number }) =>
      (pages.get(pageId)?.was[number] ?? null) === null && override.reach !== 'one' ? [] : [`${pageId}:${number}`],
    ),
  );
  return reached.length === targets.size && reached.every((place) => targets.has(place));
}
