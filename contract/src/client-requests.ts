import 'reflect-metadata';
import {
  OVERRIDE_STATES,
  MOST_LOOKS,
  REQUEST_STANDINGS,
  type ClientRequest,
  type OverrideState,
  type OverrideValue,
  type RequestItem,
  type RequestLook,
  type RequestStanding,
  type WidthRange,
} from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { OverrideValueBody, WidthRangeBody } from './requests.js';

/** A look that an item comes to, on the wire. */
export class RequestLookBody implements RequestLook {
  @IsString({ message: 'must be a selector' })
  @Length(1, 1000, { message: 'must have 1 to 1000 characters' })
  selector: string;

  @IsString({ message: 'must be a property' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  property: string;

  @ValidateNested()
  @Type(() => OverrideValueBody)
  value: OverrideValue;

  @ValidateIf(({ state }: RequestLookBody) => state !== null)
  @IsIn(OVERRIDE_STATES, { message: 'is no state' })
  state: OverrideState | null;

  /** Widths it is meant for; every width when absent. */
  @IsOptional()
  @ValidateNested()
  @Type(() => WidthRangeBody)
  widths?: WidthRange | null;
}

/** One wish of the client, on the wire. */
export class RequestItemBody implements RequestItem {
  @Matches(/^[\w-]{1,80}$/, { message: 'must be an id of 1 to 80 characters' })
  id: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 400, { message: 'must have 1 to 400 characters' })
  words: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(300, { message: 'can hold 300 parts at most' })
  @IsInt({ each: true, message: 'must hold numbers of parts' })
  partIds: readonly number[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(600, { message: 'can hold 600 pages at most' })
  @IsInt({ each: true, message: 'must hold numbers of pages' })
  pageIds: readonly number[];

  @IsString({ message: 'must be a text' })
  @MaxLength(400, { message: 'can have 400 characters at most' })
  keep: string;

  @IsString({ message: 'must be a text' })
  @MaxLength(400, { message: 'can have 400 characters at most' })
  question: string;

  @IsIn(REQUEST_STANDINGS, { message: `must be one of ${REQUEST_STANDINGS.join(', ')}` })
  standing: RequestStanding;

  @IsString({ message: 'must be a text' })
  @MaxLength(400, { message: 'can have 400 characters at most' })
  reason: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_LOOKS, { message: `can hold ${MOST_LOOKS} looks at most` })
  @ValidateNested({ each: true })
  @Type(() => RequestLookBody)
  looks: readonly RequestLookBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 overrides at most' })
  @IsString({ each: true, message: 'must hold ids' })
  @Length(1, 80, { each: true, message: 'must hold ids of 1 to 80 characters' })
  overrides: readonly string[];
}

/** What the client wrote, on the wire. */
export class ClientRequestBody implements ClientRequest {
  @Matches(/^[\w-]{1,80}$/, { message: 'must be an id of 1 to 80 characters' })
  id: string;

  @IsString({ message: 'must be a text' })
  @Length(1, 20_000, { message: 'must have 1 to 20,000 characters' })
  text: string;

  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'must be a day, as 2026-05-04' })
  cameAt: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(60, { message: 'can hold 60 items at most' })
  @ValidateNested({ each: true })
  @Type(() => RequestItemBody)
  items: readonly RequestItemBody[];
}

/** All requests as they are to be, in one step of undo. */
export class ClientRequestsRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 requests at most' })
  @ValidateNested({ each: true })
  @Type(() => ClientRequestBody)
  requests: readonly ClientRequestBody[];
}
