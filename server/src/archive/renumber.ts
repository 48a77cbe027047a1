import type {
  ArchiveBasis,
  ClientRequestBody,
  ArchiveStep,
  OverrideBody,
  PaletteBody,
  PlanRequest,
  SettingsSheetBody,
  SiteArchive,
  VariationSettingsBody,
} from '@upper-veneer/contract';
import type { Override, OverrideValue, OwnCss, PlainValue, Spot } from '@upper-veneer/core';

/** What each number of an archive becomes. */
export interface Numbers {
  page(id: number): number;
  part(id: number): number;
  swatch(id: number): number;
}

/** The archive with other numbers of pages, parts and swatches, wherever it speaks of them. */
export function renumbered({ head, steps, revisions, former }: SiteArchive, numbers: Numbers): SiteArchive {
  const settings = (own: VariationSettingsBody): VariationSettingsBody => ({
    ...own,
    partId: numbers.part(own.partId),
    settled: own.settled.map((settled) => renumberedSettled(settled, numbers)),
  });
  const overrides = (list: readonly Override[]): Override[] => list.map((own) => renumberedOverride(own, numbers));
  return {
    head: {
      ...head,
      pages: head.pages.map((page) => ({ ...page, id: numbers.page(page.id) })),
      start: renumberedStep(head.start, numbers),
      looked: head.looked.map((row) => ({
        ...row,
        pageId: numbers.page(row.pageId),
        // 0 stands for what is in no part.
        partId: row.partId === 0 ? 0 : numbers.part(row.partId),
      })),
      ...(head.variations
        ? { variations: head.variations.map((own) => ({ ...own, settings: own.settings.map(settings) })) }
        : {}),
      ...(head.trials
        ? {
            trials: head.trials.map((trial) => ({
              ...trial,
              looks: trial.looks.map((look) => ({ ...look, settings: look.settings.map(settings) })),
            })),
          }
        : {}),
      ...(head.handed ? { handed: head.handed.map((row) => ({ ...row, partId: numbers.part(row.partId) })) } : {}),
    },
    steps: steps.map((step) => renumberedStep(step, numbers)),
    revisions: revisions.map((revision) => ({
      ...revision,
      overrides: overrides(revision.overrides),
      basis: revision.basis && renumberedBasis(revision.basis, numbers),
    })),
    former: former.map((capture) => ({
      ...capture,
      pageId: numbers.page(capture.pageId),
      overrides: overrides(capture.overrides),
    })),
  };
}

function renumberedStep(step: ArchiveStep, numbers: Numbers): ArchiveStep {
  const { palette, parts, ownCss, requests, plans, settings, arrangement } = step;
  return {
    ...step,
    put: step.put.map((own) => renumberedOverride(own, numbers)),
    ...(palette ? { palette: renumberedPalette(palette, numbers) } : {}),
    ...(parts ? { parts: parts.map((part) => ({ ...part, id: numbers.part(part.id) })) } : {}),
    ...(ownCss ? { ownCss: ownCss.map((own) => renumberedOwn(own, numbers)) } : {}),
    ...(requests ? { requests: requests.map((request) => renumberedRequest(request, numbers)) } : {}),
    ...(plans ? { plans: plans.map((plan) => renumberedPlan(plan, numbers)) } : {}),
    ...(settings ? { settings: settings.map((sheet) => renumberedSheet(sheet, numbers)) } : {}),
    ...(arrangement
      ? {
          arrangement: {
            ...arrangement,
            sheetOrders: Object.fromEntries(
              Object.entries(arrangement.sheetOrders).map(([id, order]) => [numbers.page(Number(id)), order]),
            ),
          },
        }
      : {}),
  };
}

function renumberedBasis(basis: ArchiveBasis, numbers: Numbers): ArchiveBasis {
  return {
    ...basis,
    palette: renumberedPalette(basis.palette, numbers),
    parts: basis.parts.map((part) => ({ ...part, id: numbers.part(part.id) })),
    partOf: Object.fromEntries(Object.entries(basis.partOf).map(([id, part]) => [id, numbers.part(part)])),
    ownCss: basis.ownCss.map((own) => renumberedOwn(own, numbers)),
  };
}

function renumberedPalette(palette: PaletteBody, numbers: Numbers): PaletteBody {
  return { ...palette, swatches: palette.swatches.map((swatch) => ({ ...swatch, id: numbers.swatch(swatch.id) })) };
}

function renumberedOwn({ partId, css }: OwnCss, numbers: Numbers): OwnCss {
  return { partId: partId === null ? null : numbers.part(partId), css };
}

function renumberedOverride(override: Override, numbers: Numbers): OverrideBody {
  const spot = (own: Spot): Spot => ({ pageId: numbers.page(own.pageId), element: own.element });
  return {
    ...override,
    pageId: numbers.page(override.pageId),
    partId: override.partId === null ? null : numbers.part(override.partId),
    value: renumberedValue(override.value, numbers),
    ...(override.pages ? { pages: override.pages.map((id) => numbers.page(id)) } : {}),
    ...(override.spared ? { spared: override.spared.map(spot) } : {}),
  } as OverrideBody;
}

function renumberedValue(value: OverrideValue, numbers: Numbers): OverrideValue {
  if (value.kind === 'composite')
    return { ...value, colors: value.colors.map((color) => renumberedPlain(color, numbers)) };
  return value.kind === 'house' ? value : renumberedPlain(value, numbers);
}

function renumberedPlain(value: PlainValue, numbers: Numbers): PlainValue {
  return value.kind === 'swatch' ? { ...value, swatchId: numbers.swatch(value.swatchId) } : value;
}

function renumberedRequest(request: ClientRequestBody, numbers: Numbers): ClientRequestBody {
  return {
    ...request,
    items: request.items.map((item) => ({
      ...item,
      partIds: item.partIds.map((id) => numbers.part(id)),
      pageIds: item.pageIds.map((id) => numbers.page(id)),
      looks: item.looks.map((look) => ({ ...look, value: renumberedValue(look.value, numbers) })),
    })),
  };
}

function renumberedPlan(plan: PlanRequest, numbers: Numbers): PlanRequest {
  const scope = JSON.parse(plan.scope) as { kind: string; pageId?: number; partIds?: readonly number[] };
  return {
    ...plan,
    scope: JSON.stringify({
      ...scope,
      ...(scope.pageId === undefined ? {} : { pageId: numbers.page(scope.pageId) }),
      ...(scope.partIds ? { partIds: scope.partIds.map((id) => numbers.part(id)) } : {}),
    }),
    settled: plan.settled.map(({ row, value }) => (value ? { row, value: renumberedPlain(value, numbers) } : { row })),
    mains: plan.mains.map(({ pageId, element }) => ({ pageId: numbers.page(pageId), element })),
    ...(plan.apart
      ? { apart: plan.apart.map(({ row, places }) => ({ row, places: places.map((place) => moved(place, numbers)) })) }
      : {}),
  };
}

function renumberedSheet(sheet: SettingsSheetBody, numbers: Numbers): SettingsSheetBody {
  return {
    ...sheet,
    partId: numbers.part(sheet.partId),
    settled: sheet.settled.map((settled) => renumberedSettled(settled, numbers)),
  };
}

function renumberedSettled(
  { field, value }: SettingsSheetBody['settled'][number],
  numbers: Numbers,
): SettingsSheetBody['settled'][number] {
  return value ? { field, value: renumberedPlain(value, numbers) } : { field };
}

/** A place's name, which begins with its page. */
function moved(place: string, numbers: Numbers): string {
  const colon = place.indexOf(':');
  const page = Number(place.slice(0, colon));
  return colon > 0 && Number.isSafeInteger(page) && page > 0 ? `${numbers.page(page)}${place.slice(colon)}` : place;
}
