import 'reflect-metadata';
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
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

import { ROLE_NAME, type RoleName } from '@upper-veneer/core';
import { SheetWriting } from './sheet-writing.js';
import { VisitBody } from './visits.js';

export const OPENER_ACTS = ['add-class', 'drop-class', 'set-attribute', 'drop-attribute'] as const;
export const PART_KINDS = ['theme', 'embedded widget', 'form', 'pop-up', 'framed', 'shadow', 'other'] as const;
export const IMPORT_KINDS = ['files', 'address', 'widget', 'visit', 'again'] as const;

/** What opens a hidden part, on the wire. */
export class OpenerBody {
  @IsString({ message: 'must be a selector' })
  @Length(1, 1000, { message: 'must have 1 to 1000 characters' })
  selector: string;

  @IsIn(OPENER_ACTS, { message: 'must add or drop a class, or set or drop an attribute' })
  act: (typeof OPENER_ACTS)[number];

  @Matches(/^[^\s"'<>/=.]{1,80}$/, { message: 'must be the name of a class or attribute' })
  name: string;

  @IsString({ message: 'must be a text' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  value: string;
}

/** A form a part can come in, on the wire. */
export class PartTemplateBody {
  @IsString({ message: 'must be a text' })
  @Length(1, 60, { message: 'must have 1 to 60 characters' })
  name: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20, { message: 'can hold 20 changes at most' })
  @ValidateNested({ each: true })
  @Type(() => OpenerBody)
  acts: OpenerBody[];
}

/** A part on the wire; `id` 0 for a new one. */
export class PartBody {
  @IsInt({ message: 'must be the number of a part, or 0 for a new one' })
  @Min(0, { message: 'must be the number of a part, or 0 for a new one' })
  id: number;

  @IsString({ message: 'must be a text' })
  @Length(1, 60, { message: 'must have 1 to 60 characters' })
  @Matches(/[\p{L}\p{N}]/u, { message: 'needs a letter or a digit' })
  name: string;

  @IsIn(PART_KINDS, { message: 'is no kind of part' })
  kind: string;

  @IsString({ message: 'must be a selector' })
  @Length(1, 4000, { message: 'must have 1 to 4000 characters' })
  selector: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20, { message: 'can hold 20 steps at most' })
  @ValidateNested({ each: true })
  @Type(() => OpenerBody)
  openers: OpenerBody[];

  /** Forms it can come in; none when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(12, { message: 'can hold 12 templates at most' })
  @ValidateNested({ each: true })
  @Type(() => PartTemplateBody)
  templates?: PartTemplateBody[];

  /** The one it is in; as it was captured when absent or empty. */
  @IsOptional()
  @IsString({ message: 'must be a text' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  template?: string;
}

/** A part whose overrides another takes over. */
export class MergedPart {
  @IsInt({ message: 'must be the number of a part' })
  from: number;

  @IsInt({ message: 'must be the number of a part' })
  into: number;
}

/** All parts as they are to be, in one step of undo. */
export class PartsRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold 300 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => PartBody)
  parts: PartBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold 300 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => MergedPart)
  merged: MergedPart[];
}

/** The order of one page's stylesheets. */
export class SheetOrderBody {
  @IsInt({ message: 'must be the number of a page' })
  pageId: number;

  /** Places of its sheets as they are now, from 0, in the order they are to have. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 sheets at most' })
  @IsInt({ each: true, message: 'must hold places' })
  order: number[];
}

/** Where the veneer stands, and pages whose stylesheets change their order. */
export class ArrangementRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @Matches(/^(?:head-end|body-end|after:.{1,400})$/s, {
    message: 'must be head-end, body-end or after: and a stylesheet',
  })
  veneerPlace: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 pages at most' })
  @ValidateNested({ each: true })
  @Type(() => SheetOrderBody)
  sheetOrders: SheetOrderBody[];
}

/** A role's name in the sheet. */
export class RoleNameBody {
  @Matches(ROLE_NAME, { message: 'is no role of the palette' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  role: RoleName;

  @Matches(/^[a-z][a-z0-9]*(?:-[a-z0-9]+)*$/, {
    message: 'must be words of small letters and digits, joined by hyphens',
  })
  @Length(1, 40, { message: 'must have 1 to 40 characters' })
  name: string;
}

/** How the sheet is written. */
export class SheetOptionsRequest extends SheetWriting {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @Matches(/^[a-z][a-z0-9]*(?:-[a-z0-9]+)*$/, {
    message: 'must be words of small letters and digits, joined by hyphens',
  })
  @Length(1, 24, { message: 'must have 1 to 24 characters' })
  prefix: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(64, { message: 'can hold 64 roles at most' })
  @ValidateNested({ each: true })
  @Type(() => RoleNameBody)
  names: RoleNameBody[];
}

/** A colour or place that is left alone. */
export class ExceptionBody {
  @IsIn(['color', 'place'], { message: 'must be color or place' })
  kind: 'color' | 'place';

  @IsString({ message: 'must be a text' })
  @Length(1, 1000, { message: 'must have 1 to 1000 characters' })
  target: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'needs a reason of 1 to 200 characters' })
  reason: string;
}

/** All exceptions as they are to be, in one step of undo. */
export class ExceptionsRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 exceptions at most' })
  @ValidateNested({ each: true })
  @Type(() => ExceptionBody)
  exceptions: ExceptionBody[];
}

/** A new name for a site or a page. */
export class NameRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 120, { message: 'must have 1 to 120 characters' })
  @Matches(/[\p{L}\p{N}]/u, { message: 'needs a letter or a digit' })
  name: string;
}

/** What is to be brought in; files come beside it. */
export class ImportRequest {
  @IsIn(IMPORT_KINDS, { message: 'must be files, address, widget, visit or again' })
  kind: (typeof IMPORT_KINDS)[number];

  /** Site the pages are added to; `null` for a new one. */
  @IsOptional()
  @IsInt({ message: 'must be the number of a site' })
  siteId: number | null;

  /** Name of a new site; empty takes that of its first page. */
  @IsString({ message: 'must be a text' })
  @MaxLength(120, { message: 'can have 120 characters at most' })
  name: string;

  @ValidateIf((body: ImportRequest) => body.kind === 'address')
  @IsString({ message: 'must be a web address' })
  @Matches(/^https?:\/\/\S{1,2000}$/i, { message: 'must begin with http:// or https://' })
  address?: string;

  @ValidateIf((body: ImportRequest) => body.kind === 'widget')
  @IsString({ message: 'must be a text' })
  @Length(1, 2_000_000, { message: 'must have 1 to 2,000,000 characters' })
  html?: string;

  @ValidateIf((body: ImportRequest) => body.kind === 'widget')
  @IsString({ message: 'must be a text' })
  @MaxLength(2_000_000, { message: 'can have 2,000,000 characters at most' })
  css?: string;

  @ValidateIf((body: ImportRequest) => body.kind === 'visit')
  @IsObject({ message: 'must be a visit' })
  @ValidateNested()
  @Type(() => VisitBody)
  visit?: VisitBody;

  /** The visit that this one takes the place of; those to be made again for `again`, all of the site when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 visits at most' })
  @IsInt({ each: true, message: 'must be numbers of visits' })
  visitIds?: number[];
}
