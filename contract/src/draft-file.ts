import { errorText } from '@upper-veneer/words';
import 'reflect-metadata';
import type { CompileOptions, Override, OwnCss, Palette, RoleName } from '@upper-veneer/core';
import { HOUSE_PARTS } from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  ValidateNested,
} from 'class-validator';
import { OverrideBody, OwnCssBody, PaletteRequest } from './requests.js';
import { validateBody } from './validate.js';
import { SheetWriting } from './sheet-writing.js';

/** Version of the format. */
export const DRAFT_FILE_VERSION = 1;

/** A part's section in the sheet. */
class SectionBody {
  @IsInt({ message: 'must be the number of a part' })
  id: number;

  @IsString({ message: 'must be a text' })
  @Length(1, 120, { message: 'must have 1 to 120 characters' })
  name: string;
}

/** A draft as a file: all that its sheet is compiled from. */
export class DraftFile extends SheetWriting {
  @IsIn([DRAFT_FILE_VERSION], { message: `must be ${DRAFT_FILE_VERSION}: this version of the product reads no other` })
  version: number;

  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  site: string;

  @Matches(/^[a-z][a-z0-9-]{0,30}$/, { message: 'must begin with a letter and hold letters, digits and hyphens' })
  prefix: string;

  @IsObject({ message: 'must be names by role' })
  names: Readonly<Partial<Record<RoleName, string>>>;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold 300 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => SectionBody)
  parts: readonly SectionBody[];

  @IsObject({ message: 'must be a palette' })
  palette: Palette;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  overrides: readonly Override[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(301, { message: 'can hold one a section' })
  @ValidateNested({ each: true })
  @Type(() => OwnCssBody)
  ownCss?: readonly OwnCss[];
}

/** What a role may be called, as the Sheet asks it; linear. */
const NAME = /^[a-z][a-z0-9-]{0,39}$/;

/** What a draft file holds, or what is wrong with it and where. */
export type DraftRead =
  | { readonly ok: true; readonly overrides: readonly Override[]; readonly options: CompileOptions }
  | { readonly ok: false; readonly problems: readonly string[] };

/** Reads a draft file; whatever it does not say as it should is named by its field. */
export function readDraftFile(text: string): DraftRead {
  let body: unknown;
  try {
    body = JSON.parse(text);
  } catch (error) {
    return { ok: false, problems: [`it is no JSON: ${errorText(error)}`] };
  }
  const read = validateBody(DraftFile, body);
  if (!read.ok) return { ok: false, problems: read.errors.map(({ field, reason }) => `${field} ${reason}`) };
  const { palette, overrides, ownCss, prefix, asValues, hoverOnly, flatFor, isByLetters, names, parts } = read.value;
  const misnamed = Object.entries(names).find(([, name]) => !NAME.test(String(name)));
  if (misnamed)
    return {
      ok: false,
      problems: [`names.${misnamed[0]} must be words of small letters and digits, joined by hyphens`],
    };
  const { swatches, roles, second, shape } = palette;
  const isList = (value: unknown): boolean =>
    Array.isArray(value) && value.every((item) => typeof item === 'object' && item !== null);
  if (!isList(swatches) || !isList(roles) || (second && !isList(second.roles)))
    return { ok: false, problems: ['palette must hold swatches and roles, each a list of objects'] };
  // Of the palette as the product sends it, roles name their swatch.
  const named = (list: Palette['roles']) =>
    list.map(({ role, swatchId, shade }) => ({
      role,
      shade,
      swatch: swatches.find(({ id }) => id === swatchId)?.name ?? '',
    }));
  const known = validateBody(PaletteRequest, {
    label: 'read',
    swatches: swatches.map(({ id, name, css }) => ({ id, name, css })),
    roles: named(roles),
    ...(second ? { second: { told: second.told, roles: named(second.roles) } } : {}),
    ...(shape
      ? { shape: Object.fromEntries(HOUSE_PARTS.flatMap((part) => (shape[part] ? [[part, shape[part]]] : []))) }
      : {}),
  });
  if (!known.ok) return { ok: false, problems: known.errors.map(({ field, reason }) => `palette.${field} ${reason}`) };
  return {
    ok: true,
    overrides,
    options: { palette, ownCss, prefix, asValues, hoverOnly, flatFor, isByLetters, names, parts },
  };
}
