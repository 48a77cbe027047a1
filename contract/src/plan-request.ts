import type { PlainValue, ShapeBecomes, Strategy } from '@upper-veneer/core';
import { SHAPE_BECOMES, STRATEGIES } from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  MaxLength,
  Min,
  ValidateNested,
} from 'class-validator';
import { PlainValueBody } from './requests.js';

/** Rows one plan can settle. */
const MOST_ROWS = 2000;
const MOST_PLACES = 3000;

/** A row that keeps its value: one of the palette, a literal, or none where it is left alone. */
export class SettledRowBody {
  @IsString({ message: 'must be a text' })
  @Length(1, 400, { message: 'must have 1 to 400 characters' })
  row: string;

  @IsOptional()
  @ValidateNested()
  @Type(() => PlainValueBody)
  value?: PlainValue;
}

/** Rows that must stay equal. */
export class EqualRowsBody {
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_ROWS, { message: `can hold ${MOST_ROWS} rows at most` })
  @IsString({ each: true, message: 'must hold rows' })
  rows: string[];
}

/** Places of a row that are a row of their own. */
export class ApartBody {
  @IsString({ message: 'must be a text' })
  @Length(1, 400, { message: 'must have 1 to 400 characters' })
  row: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_PLACES, { message: `can hold ${MOST_PLACES} places at most` })
  @IsString({ each: true, message: 'must hold places' })
  @MaxLength(200, { each: true, message: 'must hold places of 200 characters at most' })
  places: string[];
}

/** What a shape becomes. */
export class SettledShapeBody {
  @IsString({ message: 'must be a text' })
  @Length(1, 600, { message: 'must have 1 to 600 characters' })
  row: string;

  @IsIn(SHAPE_BECOMES, { message: 'must be house, page or leave' })
  becomes: ShapeBecomes;
}

/** An element of a page. */
export class MainActionBody {
  @IsInt({ message: 'must be the number of a page' })
  @Min(1, { message: 'must be the number of a page' })
  pageId: number;

  @IsInt({ message: 'must be the number of an element' })
  @Min(0, { message: 'must be the number of an element' })
  element: number;
}

/** All that is settled of matching one scope, in one step of undo. */
export class PlanRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  /** The scope as JSON. */
  @IsString({ message: 'must be a text' })
  @Length(2, 4000, { message: 'must be a scope of 2 to 4000 characters' })
  scope: string;

  @IsIn(STRATEGIES, { message: 'must be blend or stand-out' })
  strategy: Strategy;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_ROWS, { message: `can hold ${MOST_ROWS} rows at most` })
  @ValidateNested({ each: true })
  @Type(() => SettledRowBody)
  settled: SettledRowBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 lists at most' })
  @ValidateNested({ each: true })
  @Type(() => EqualRowsBody)
  equal: EqualRowsBody[];

  /** Empty where they are told from the page. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 actions at most' })
  @ValidateNested({ each: true })
  @Type(() => MainActionBody)
  mains: MainActionBody[];

  /** Custom properties of the theme that are overridden themselves, by id; where that is the shorter way when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 properties at most' })
  @IsString({ each: true, message: 'must hold ids' })
  @MaxLength(1000, { each: true, message: 'must hold ids of 1,000 characters at most' })
  properties?: string[] | null;

  /** What shapes become that was set by hand; none when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 shapes at most' })
  @ValidateNested({ each: true })
  @Type(() => SettledShapeBody)
  shapes?: SettledShapeBody[];

  /** Places set apart from their rows; none when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 lists at most' })
  @ValidateNested({ each: true })
  @Type(() => ApartBody)
  apart?: ApartBody[];

  /** Rows merged into one; none when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 lists at most' })
  @ValidateNested({ each: true })
  @Type(() => EqualRowsBody)
  merged?: EqualRowsBody[];
}
