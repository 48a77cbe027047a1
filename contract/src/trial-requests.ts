import 'reflect-metadata';
import { STRATEGIES, type Override, type Strategy } from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { OverrideBody } from './requests.js';
import { EqualFieldsBody, SettledFieldBody } from './settings-requests.js';

const DAY = /^\d{4}-\d{2}-\d{2}$/;
/** Names of the variations of a trial. */
export const VARIATION_NAME = /^[A-F]$/;

/** Variations that one trial can hold. */
export const MOST_VARIATIONS = 6;
/** What a conversion can be: a press on something, a form sent, a page reached. */
export const CONVERSION_KINDS = ['press', 'sent', 'reached'] as const;
export type ConversionKind = (typeof CONVERSION_KINDS)[number];

/** How a variation fills a part's settings, and what is typed for it. */
export class VariationSettingsBody {
  @IsInt({ message: 'must be the number of a part' })
  @Min(1, { message: 'must be the number of a part' })
  partId: number;

  @IsIn(STRATEGIES, { message: 'must be blend or stand-out' })
  strategy: Strategy;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(60, { message: 'can hold 60 fields at most' })
  @ValidateNested({ each: true })
  @Type(() => SettledFieldBody)
  settled: readonly SettledFieldBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(60, { message: 'can hold 60 lists at most' })
  @ValidateNested({ each: true })
  @Type(() => EqualFieldsBody)
  equal: readonly EqualFieldsBody[];

  /** What each field holds, by the maker's name. */
  @IsObject({ message: 'must be values by field' })
  values: Readonly<Record<string, string>>;
}

/** A fork of the draft that changes only what it names. */
export class VariationRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  name: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  put: readonly Override[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 overrides at most' })
  @IsString({ each: true, message: 'must hold ids' })
  drop: readonly string[];

  /** Parts whose settings it fills otherwise; none when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20, { message: 'can hold 20 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => VariationSettingsBody)
  settings?: readonly VariationSettingsBody[];
}

/** What a trial is planned for. */
export class TrialPlanBody {
  @IsNumber({}, { message: 'must be a rate' })
  @Min(0.0001, { message: 'must be 0.01 % or more' })
  @Max(0.9999, { message: 'must be under 100 %' })
  base: number;

  @IsNumber({}, { message: 'must be a difference of rates' })
  @Min(0.0001, { message: 'must be 0.01 points or more' })
  @Max(0.9, { message: 'can be 90 points at most' })
  smallest: number;

  @IsNumber({}, { message: 'must be a chance' })
  @Min(0.001, { message: 'must be 0.1 % or more' })
  @Max(0.2, { message: 'can be 20 % at most' })
  alpha: number;

  @IsNumber({}, { message: 'must be a chance' })
  @Min(0.5, { message: 'must be 50 % or more' })
  @Max(0.99, { message: 'can be 99 % at most' })
  power: number;
}

/** What counts as success. */
export class ConversionBody {
  @IsIn(CONVERSION_KINDS, { message: 'must be press, sent or reached' })
  kind: ConversionKind;

  /** Selector of what is pressed or sent, or path of the page reached. */
  @IsString({ message: 'must be a text' })
  @Length(1, 400, { message: 'must have 1 to 400 characters' })
  target: string;
}

/** One of the looks that are held against each other. */
export class TrialVariationBody {
  /** Number of a variation; `null` for the draft as it stands. */
  @ValidateIf(({ variationId }: TrialVariationBody) => variationId !== null)
  @IsInt({ message: 'must be the number of a variation' })
  variationId: number | null;
}

/** What a trial is about. */
export abstract class TrialTerms {
  @IsString({ message: 'must be a text' })
  @Length(1, 120, { message: 'must have 1 to 120 characters' })
  name: string;

  @ValidateNested()
  @Type(() => TrialPlanBody)
  plan: TrialPlanBody;

  @IsArray({ message: 'must be a list' })
  @ArrayMinSize(1, { message: 'must name what counts' })
  @ArrayMaxSize(4, { message: 'can hold 4 conversions at most' })
  @ValidateNested({ each: true })
  @Type(() => ConversionBody)
  conversions: readonly ConversionBody[];

  /** Selector of what must have come into view for a visitor to have seen it; empty for any page. */
  @IsString({ message: 'must be a selector, or empty' })
  @MaxLength(400, { message: 'can have 400 characters at most' })
  seen: string;
}

/** A trial as it is planned. */
export class TrialRequest extends TrialTerms {
  @IsArray({ message: 'must be a list' })
  @ArrayMinSize(2, { message: 'must hold two variations or more' })
  @ArrayMaxSize(MOST_VARIATIONS, { message: `can hold ${MOST_VARIATIONS} variations at most` })
  @ValidateNested({ each: true })
  @Type(() => TrialVariationBody)
  variations: readonly TrialVariationBody[];
}

/** What a variation's proof came to, on the parts it changes. */
export class VariationProofBody {
  @Matches(VARIATION_NAME, { message: 'must be a variation' })
  variation: string;

  /** What cannot be read or seen. */
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  fails: number;

  /** What was held against what is asked. */
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  looks: number;

  /** What was not looked at, in words; nothing when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(50, { message: 'can hold 50 at most' })
  @IsString({ each: true, message: 'must hold texts' })
  @MaxLength(300, { each: true, message: 'must hold texts of 300 characters at most' })
  unseen?: readonly string[];
}

/** A trial started, paused, or gone on with. */
export class TrialStateRequest {
  @IsBoolean({ message: 'must be true or false' })
  isRunning: boolean;

  /** Proof of each variation; wanted for the first start. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_VARIATIONS, { message: 'can hold one a variation' })
  @ValidateNested({ each: true })
  @Type(() => VariationProofBody)
  proofs?: readonly VariationProofBody[];
}

/** Made-up traffic. */
export class TrafficRequest {
  @Matches(DAY, { message: 'must be a day, as 2026-05-04' })
  from: string;

  @IsInt({ message: 'must be a whole number' })
  @Min(1, { message: 'must be 1 day or more' })
  @Max(120, { message: 'can be 120 days at most' })
  days: number;

  @IsInt({ message: 'must be a whole number' })
  @Min(1, { message: 'must be 1 or more' })
  @Max(20_000, { message: 'can be 20,000 a day at most' })
  visitors: number;

  /** Rate of each variation, 0–1, in their order. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_VARIATIONS, { message: 'can hold one a variation' })
  @IsNumber({}, { each: true, message: 'must hold rates' })
  @Min(0, { each: true, message: 'must hold rates from 0' })
  @Max(1, { each: true, message: 'must hold rates to 100 %' })
  rates: readonly number[];

  /** How much more or less comes on each day of the week, Monday first. */
  @IsArray({ message: 'must be a list' })
  @ArrayMinSize(7, { message: 'must hold seven days' })
  @ArrayMaxSize(7, { message: 'must hold seven days' })
  @IsNumber({}, { each: true, message: 'must hold numbers' })
  @Min(0, { each: true, message: 'must hold numbers from 0' })
  @Max(5, { each: true, message: 'must hold numbers to 5' })
  weekdays: readonly number[];

  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  @Max(2 ** 31, { message: 'is too large' })
  seed: number;
}

/** What was counted on a day elsewhere. */
export class DayCountBody {
  @Matches(DAY, { message: 'must be a day, as 2026-05-04' })
  day: string;

  @Matches(VARIATION_NAME, { message: 'must be a variation' })
  variation: string;

  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  @Max(1_000_000_000, { message: 'is too large' })
  seen: number;

  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  @Max(1_000_000_000, { message: 'is too large' })
  pressed: number;
}

/** Counts brought in from elsewhere, in place of those brought in before. */
export class CountsRequest {
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20_000, { message: 'can hold 20,000 lines at most' })
  @ValidateNested({ each: true })
  @Type(() => DayCountBody)
  counts: readonly DayCountBody[];
}

/** What was decided. */
export class DecisionRequest {
  @Matches(VARIATION_NAME, { message: 'must be a variation' })
  winner: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  who: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 1000, { message: 'must have 1 to 1000 characters' })
  why: string;

  /** Which conversion it was decided by; the first when absent. */
  @IsOptional()
  @IsInt({ message: 'must be the number of a conversion' })
  @Min(0, { message: 'must be the number of a conversion' })
  @Max(3, { message: 'must be the number of a conversion' })
  conversion?: number;
}
