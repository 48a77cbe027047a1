import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

/** What the proof of a revision came to. */
export class RevisionProofRequest {
  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  @Max(1_000_000, { message: 'can be a million at most' })
  fails: number;

  @IsInt({ message: 'must be a whole number' })
  @Min(0, { message: 'cannot be negative' })
  @Max(1_000_000, { message: 'can be a million at most' })
  toLookAt: number;
}

/** How the stand-in host hands files on. */
export class HostingRequest {
  @IsBoolean({ message: 'must be true or false' })
  hasNewName: boolean;

  @IsInt({ message: 'must be a whole number of seconds' })
  @Min(0, { message: 'cannot be negative' })
  @Max(31_536_000, { message: 'can be a year at most' })
  maxAge: number;
}

/** What is shown of a page: as it is captured, or with its hidden parts opened. */
export const LOOK_STEPS = ['shown', 'opened'] as const;
export type LookStep = (typeof LOOK_STEPS)[number];

/** A part on a page, and what it looks like. */
export class LookedBody {
  /** 0 for what stands in no part. */
  @IsInt({ message: 'must be the number of a part' })
  @Min(0, { message: 'must be the number of a part' })
  partId: number;

  @IsInt({ message: 'must be the number of a page' })
  @Min(1, { message: 'must be the number of a page' })
  pageId: number;

  @IsIn(LOOK_STEPS, { message: `must be one of ${LOOK_STEPS.join(', ')}` })
  step: LookStep;

  /** Fingerprint of what it looks like. */
  @Matches(/^[0-9a-z]{1,40}$/, { message: 'must be a fingerprint' })
  look: string;
}

/** Places that were looked at by eye, or are to be looked at again. */
export class LookedRequest {
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(5000, { message: 'can hold 5000 places at most' })
  @ValidateNested({ each: true })
  @Type(() => LookedBody)
  rows: LookedBody[];

  @IsBoolean({ message: 'must be true or false' })
  isLooked: boolean;
}

/** Overrides whose drift is settled; `null` for all there is. */
export class SettledRequest {
  @ValidateIf((_, value) => value !== null)
  @IsArray({ message: 'must be a list or null' })
  @ArrayMaxSize(20_000, { message: 'can hold 20000 overrides at most' })
  @IsString({ each: true, message: 'must hold ids' })
  @Length(1, 80, { each: true, message: 'must hold ids of 1 to 80 characters' })
  overrides: string[] | null;
}
