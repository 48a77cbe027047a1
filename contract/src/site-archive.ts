import 'reflect-metadata';
import type { Override, OwnCss } from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
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
import { ClientRequestBody } from './client-requests.js';
import { PlanRequest } from './plan-request.js';
import { LookedBody } from './proof-requests.js';
import { OverrideBody, OwnCssBody, PaletteBody } from './requests.js';
import { ExceptionBody, PartBody } from './site-requests.js';
import { HandedRecordBody, SettingsSheetBody } from './settings-requests.js';
import { ArchiveTrial, ArchiveVariation } from './trial-archive.js';
import { SheetWriting } from './sheet-writing.js';
import { StoredVisitBody } from './visits.js';

/** Name of the file that tells an archive of a site, and what it calls itself. */
export const ARCHIVE_HEAD = 'upper-veneer-site.json';
export const ARCHIVE_FORMAT = 'upper-veneer site';
/** Version of the format. */
export const ARCHIVE_VERSION = 1;

const FILE = /^[^\s\\][^\\]{0,420}$/;

/** A page, and the file of the archive that its HTML is in. */
export class ArchivePage {
  @IsInt({ message: 'must be the number of a page' })
  @Min(1, { message: 'must be the number of a page' })
  id: number;

  @IsString({ message: 'must be a text' })
  @Length(1, 400, { message: 'must have 1 to 400 characters' })
  name: string;

  @IsString({ message: 'must be a path' })
  @Length(1, 400, { message: 'must have 1 to 400 characters' })
  path: string;

  @IsString({ message: 'must be a text' })
  @MaxLength(4000, { message: 'can have 4000 characters at most' })
  source: string;

  @Matches(FILE, { message: 'must name a file of the archive' })
  file: string;
}

/** A stylesheet, picture or font, and the file of the archive it is in. */
export class ArchiveFile {
  @IsString({ message: 'must be a path' })
  @Length(1, 420, { message: 'must have 1 to 420 characters' })
  path: string;

  @Matches(/^[a-z]+\/[a-z0-9.+-]{1,80}$/, { message: 'must be a media type' })
  mediaType: string;

  @Matches(FILE, { message: 'must name a file of the archive' })
  file: string;
}

/** How the sheet is written. */
export class ArchiveNaming extends SheetWriting {
  @Matches(/^[a-z][a-z0-9-]{0,30}$/, { message: 'must begin with a letter and hold letters, digits and hyphens' })
  prefix: string;

  /** Names by role. */
  @IsObject({ message: 'must be names by role' })
  names: Readonly<Record<string, string>>;
}

/** Where the veneer stands, and the order of each page's stylesheets by the page's number; `null` for the captured one. */
export class ArchiveArrangement {
  @Matches(/^(?:head-end|body-end|after:.{1,400})$/s, {
    message: 'must be head-end, body-end or after: and a stylesheet',
  })
  veneerPlace: string;

  @IsObject({ message: 'must be orders by page' })
  sheetOrders: Readonly<Record<string, readonly number[] | null>>;
}

/** What of the draft a step of its history changed, as it is after it; what is absent stayed as it was. */
export class ArchiveStep {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsISO8601({}, { message: 'must be a moment' })
  madeAt: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  put: readonly Override[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 overrides at most' })
  @IsString({ each: true, message: 'must hold ids' })
  drop: readonly string[];

  @IsOptional()
  @ValidateNested()
  @Type(() => PaletteBody)
  palette?: PaletteBody;

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold 300 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => PartBody)
  parts?: readonly PartBody[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(301, { message: 'can hold one a section' })
  @ValidateNested({ each: true })
  @Type(() => OwnCssBody)
  ownCss?: readonly OwnCss[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 exceptions at most' })
  @ValidateNested({ each: true })
  @Type(() => ExceptionBody)
  exceptions?: readonly ExceptionBody[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(2000, { message: 'can hold 2,000 plans at most' })
  @ValidateNested({ each: true })
  @Type(() => PlanRequest)
  plans?: readonly PlanRequest[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold one a part' })
  @ValidateNested({ each: true })
  @Type(() => SettingsSheetBody)
  settings?: readonly SettingsSheetBody[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 requests at most' })
  @ValidateNested({ each: true })
  @Type(() => ClientRequestBody)
  requests?: readonly ClientRequestBody[];

  @IsOptional()
  @ValidateNested()
  @Type(() => ArchiveArrangement)
  arrangement?: ArchiveArrangement;

  @IsOptional()
  @ValidateNested()
  @Type(() => ArchiveNaming)
  naming?: ArchiveNaming;
}

/** What a revision's sheet was compiled from beside its overrides. */
export class ArchiveBasis {
  @ValidateNested()
  @Type(() => PaletteBody)
  palette: PaletteBody;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold 300 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => PartBody)
  parts: readonly PartBody[];

  /** Part of each override, by its id. */
  @IsObject({ message: 'must be parts by override' })
  partOf: Readonly<Record<string, number>>;

  @ValidateNested()
  @Type(() => ArchiveNaming)
  naming: ArchiveNaming;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(301, { message: 'can hold one a section' })
  @ValidateNested({ each: true })
  @Type(() => OwnCssBody)
  ownCss: readonly OwnCss[];
}

/** A revision, a file of the archive each. */
export class ArchiveRevision {
  @IsInt({ message: 'must be the number of a revision' })
  @Min(1, { message: 'must be the number of a revision' })
  number: number;

  @IsString({ message: 'must be a text' })
  @MaxLength(2000, { message: 'can have 2000 characters at most' })
  note: string;

  @IsISO8601({}, { message: 'must be a moment' })
  savedAt: string;

  /** The sheet as it is published, and as it was before it was tidied. */
  @IsString({ message: 'must be a text' })
  css: string;

  @IsString({ message: 'must be a text' })
  plainCss: string;

  @IsBoolean({ message: 'must be true or false' })
  isUntidied: boolean;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  overrides: readonly Override[];

  /** `null` for a revision saved before that was kept. */
  @ValidateIf(({ basis }: ArchiveRevision) => basis !== null)
  @ValidateNested()
  @Type(() => ArchiveBasis)
  basis: ArchiveBasis | null;

  /** What its proof came to; `null` where it was not proved. */
  @ValidateIf(({ fails }: ArchiveRevision) => fails !== null)
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  fails: number | null;

  @ValidateIf(({ toLookAt }: ArchiveRevision) => toLookAt !== null)
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  toLookAt: number | null;
}

/** A publication of a revision. */
export class ArchivePublication {
  @IsInt({ message: 'must be the number of a revision' })
  @Min(1, { message: 'must be the number of a revision' })
  revision: number;

  @IsISO8601({}, { message: 'must be a moment' })
  at: string;
}

/** What was looked at by eye, and when. */
export class ArchiveLooked extends LookedBody {
  @IsISO8601({}, { message: 'must be a moment' })
  at: string;
}

/** A file that an import left out. */
export class ArchiveLeftOut {
  @IsString({ message: 'must be a path' })
  @MaxLength(1000, { message: 'can have 1000 characters at most' })
  path: string;

  @IsString({ message: 'must be a text' })
  @MaxLength(1000, { message: 'can have 1000 characters at most' })
  reason: string;
}

/** A page as it was before it was captured again, a file of the archive each. */
export class ArchiveFormer {
  @IsInt({ message: 'must be the number of a page' })
  @Min(1, { message: 'must be the number of a page' })
  pageId: number;

  @IsISO8601({}, { message: 'must be a moment' })
  capturedAt: string;

  @IsString({ message: 'must be a text' })
  html: string;

  /** Stylesheets that have another text now, by path. */
  @IsObject({ message: 'must be stylesheets by path' })
  stylesheets: Readonly<Record<string, string>>;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  overrides: readonly Override[];
}

/** Steps of the history, some a file. */
export class ArchiveHistory {
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(1000, { message: 'can hold 1,000 steps at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveStep)
  steps: readonly ArchiveStep[];
}

/** The head of an archive: what the site is, and which file of the archive holds what. */
export class ArchiveHead {
  @IsIn([ARCHIVE_FORMAT], { message: `must be "${ARCHIVE_FORMAT}"` })
  format: string;

  @IsIn([ARCHIVE_VERSION], {
    message: `must be ${ARCHIVE_VERSION}: this version of the product reads no other`,
  })
  version: number;

  @IsISO8601({}, { message: 'must be a moment' })
  takenAt: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  name: string;

  /** In the order the site has them. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(600, { message: 'can hold 600 pages at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchivePage)
  pages: readonly ArchivePage[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(6000, { message: 'can hold 6,000 files at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveFile)
  files: readonly ArchiveFile[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(2000, { message: 'can hold 2,000 files at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveLeftOut)
  leftOut: readonly ArchiveLeftOut[];

  /** How pages were visited; none in older files. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 visits at most' })
  @ValidateNested({ each: true })
  @Type(() => StoredVisitBody)
  visits?: readonly StoredVisitBody[];

  /** The draft as it was before the first step of its history that is kept. */
  @ValidateNested()
  @Type(() => ArchiveStep)
  start: ArchiveStep;

  /** Steps of the history, in order, are in these files; so many of the last are undone. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(1000, { message: 'can hold 1,000 files at most' })
  @Matches(FILE, { each: true, message: 'must name files of the archive' })
  history: readonly string[];

  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  undone: number;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 files at most' })
  @Matches(FILE, { each: true, message: 'must name files of the archive' })
  revisions: readonly string[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 publications at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchivePublication)
  publications: readonly ArchivePublication[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 places at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveLooked)
  looked: readonly ArchiveLooked[];

  /** What was handed over of settings sheets; none in archives of before there were any. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 values at most' })
  @ValidateNested({ each: true })
  @Type(() => HandedRecordBody)
  handed?: readonly HandedRecordBody[];

  /** Forks of the draft and trials; none in archives of before there were any. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(2000, { message: 'can hold 2,000 variations at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveVariation)
  variations?: readonly ArchiveVariation[];

  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 trials at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveTrial)
  trials?: readonly ArchiveTrial[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 files at most' })
  @Matches(FILE, { each: true, message: 'must name files of the archive' })
  former: readonly string[];
}

/** A site with its history, its files read in. */
export interface SiteArchive {
  readonly head: ArchiveHead;
  readonly steps: readonly ArchiveStep[];
  readonly revisions: readonly ArchiveRevision[];
  readonly former: readonly ArchiveFormer[];
}
