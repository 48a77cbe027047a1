import 'reflect-metadata';
import {
  MOST_FIELDS,
  MOST_PLACES,
  SETTING_JOBS,
  SETTING_NOTATIONS,
  SETTING_PROPERTY,
  SETTING_STATES,
  STRATEGIES,
  type FixedPlace,
  type PlainValue,
  type SettingField,
  type SettingJob,
  type SettingNotation,
  type SettingPlace,
  type SettingPreset,
  type SettingState,
  type Strategy,
} from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsISO8601,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { PlainValueBody } from './requests.js';

const FIELD_ID = /^[\w-]{1,40}$/;

/** A place that a maker's field changes, on the wire. */
export class SettingPlaceBody implements SettingPlace {
  @IsString({ message: 'must be a text' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  surface: string;

  @IsIn(SETTING_JOBS, { message: `must be one of ${SETTING_JOBS.join(', ')}` })
  job: SettingJob;

  @IsIn(SETTING_STATES, { message: `must be one of ${SETTING_STATES.join(', ')}` })
  state: SettingState;

  @IsString({ message: 'must be a selector, or empty' })
  @MaxLength(400, { message: 'can have 400 characters at most' })
  selector: string;

  @ValidateIf(({ property }: SettingPlaceBody) => property !== '')
  @Matches(SETTING_PROPERTY, { message: 'must be a property, or empty' })
  property: string;
}

/** A place that no field reaches, on the wire. */
export class FixedPlaceBody extends SettingPlaceBody implements FixedPlace {
  @IsString({ message: 'must be a colour, or empty' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  css: string;
}

/** One of a maker's presets, on the wire. */
export class SettingPresetBody implements SettingPreset {
  @IsString({ message: 'must be a text' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  name: string;

  @IsString({ message: 'must be a colour' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  css: string;
}

/** A maker's field, on the wire. */
export class SettingFieldBody implements SettingField {
  @Matches(FIELD_ID, { message: 'must be an id of 1 to 40 letters, digits and hyphens' })
  id: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  name: string;

  @IsIn(SETTING_NOTATIONS, { message: `must be one of ${SETTING_NOTATIONS.join(', ')}` })
  notation: SettingNotation;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(60, { message: 'can hold 60 presets at most' })
  @ValidateNested({ each: true })
  @Type(() => SettingPresetBody)
  presets: readonly SettingPresetBody[];

  @IsString({ message: 'must be a text' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  present: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_PLACES, { message: `can hold ${MOST_PLACES} places at most` })
  @ValidateNested({ each: true })
  @Type(() => SettingPlaceBody)
  places: readonly SettingPlaceBody[];
}

/** A field set by hand: to a value, or left alone where there is none. */
export class SettledFieldBody {
  @Matches(FIELD_ID, { message: 'must be the id of a field' })
  field: string;

  @IsOptional()
  @ValidateNested()
  @Type(() => PlainValueBody)
  value?: PlainValue;
}

/** Fields that must stay equal. */
export class EqualFieldsBody {
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_FIELDS, { message: `can hold ${MOST_FIELDS} fields at most` })
  @IsString({ each: true, message: 'must hold ids of fields' })
  fields: readonly string[];
}

/** A part's settings sheet, on the wire. */
export class SettingsSheetBody {
  @IsInt({ message: 'must be the number of a part' })
  @Min(1, { message: 'must be the number of a part' })
  partId: number;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_FIELDS, { message: `can hold ${MOST_FIELDS} fields at most` })
  @ValidateNested({ each: true })
  @Type(() => SettingFieldBody)
  fields: readonly SettingFieldBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_FIELDS, { message: `can hold ${MOST_FIELDS} places at most` })
  @ValidateNested({ each: true })
  @Type(() => FixedPlaceBody)
  fixed: readonly FixedPlaceBody[];

  @IsString({ message: 'must be a path, or empty' })
  @MaxLength(420, { message: 'can have 420 characters at most' })
  document: string;

  @IsString({ message: 'must be an address, or empty' })
  @MaxLength(2000, { message: 'can have 2,000 characters at most' })
  address: string;

  @IsIn(STRATEGIES, { message: 'must be blend or stand-out' })
  strategy: Strategy;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_FIELDS, { message: `can hold ${MOST_FIELDS} fields at most` })
  @ValidateNested({ each: true })
  @Type(() => SettledFieldBody)
  settled: readonly SettledFieldBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_FIELDS, { message: `can hold ${MOST_FIELDS} lists at most` })
  @ValidateNested({ each: true })
  @Type(() => EqualFieldsBody)
  equal: readonly EqualFieldsBody[];
}

/** A part's settings sheet as it is to be, in one step of undo; none where it is taken away. */
export class SettingsRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsOptional()
  @ValidateNested()
  @Type(() => SettingsSheetBody)
  sheet?: SettingsSheetBody;
}

/** What a field holds over there by now. */
export class HandedFieldBody {
  @Matches(FIELD_ID, { message: 'must be the id of a field' })
  field: string;

  /** As it was typed or sent; absent where it was not handed over after all. */
  @IsOptional()
  @IsString({ message: 'must be a text' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  text?: string;
}

/** Fields ticked as handed over, or ticked no longer; or fields that are sent. */
export class HandedRequest {
  @IsArray({ message: 'must be a list' })
  @ArrayMinSize(1, { message: 'must name a field' })
  @ArrayMaxSize(MOST_FIELDS, { message: `can hold ${MOST_FIELDS} fields at most` })
  @ValidateNested({ each: true })
  @Type(() => HandedFieldBody)
  fields: readonly HandedFieldBody[];
}

/** Where a maker offers its fields. */
export class SettingsReadRequest {
  @IsString({ message: 'must be an address' })
  @Length(1, 2000, { message: 'must have 1 to 2,000 characters' })
  address: string;
}

/** A value that was handed over, as an archive keeps it. */
export class HandedRecordBody {
  @IsInt({ message: 'must be the number of a part' })
  @Min(1, { message: 'must be the number of a part' })
  partId: number;

  @Matches(FIELD_ID, { message: 'must be the id of a field' })
  field: string;

  @IsString({ message: 'must be a text' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  text: string;

  @IsISO8601({}, { message: 'must be a moment' })
  at: string;
}
