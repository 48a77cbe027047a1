import 'reflect-metadata';
import {
  VISIT_ACTS,
  VISIT_BOUNDS,
  type PageSight,
  type VisitAct,
  type VisitPlan,
  type VisitStep,
} from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';

const LONGEST = VISIT_BOUNDS.textLength;

/** A text of a step. */
function ShortText(): PropertyDecorator {
  return (target, field) => {
    IsString({ message: 'must be a text' })(target, field);
    MaxLength(LONGEST, { message: `can have ${LONGEST} characters at most` })(target, field);
  };
}

/** One thing a visitor does. */
export class VisitStepBody implements VisitStep {
  @IsIn(VISIT_ACTS, { message: `must be one of ${VISIT_ACTS.join(', ')}` })
  act: VisitAct;

  @ShortText()
  selector: string;

  @ShortText()
  words: string;

  @ShortText()
  frame: string;

  @ShortText()
  text: string;

  @ValidateIf((step: VisitStepBody) => step.width !== null)
  @IsInt({ message: 'must be a whole number of px' })
  @Min(VISIT_BOUNDS.leastWidth, { message: `must be ${VISIT_BOUNDS.leastWidth} px at least` })
  @Max(VISIT_BOUNDS.mostWidth, { message: `can be ${VISIT_BOUNDS.mostWidth} px at most` })
  width: number | null;

  @ValidateIf((step: VisitStepBody) => step.keep !== null)
  @IsString({ message: 'must be a text' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  keep: string | null;
}

/** A page that is to be opened and looked at. */
export class SightRequest {
  @IsString({ message: 'must be a web address' })
  @Matches(/^https?:\/\/\S{1,2000}$/i, { message: 'must begin with http:// or https://' })
  address: string;

  @IsInt({ message: 'must be a whole number of px' })
  @Min(VISIT_BOUNDS.leastWidth, { message: `must be ${VISIT_BOUNDS.leastWidth} px at least` })
  @Max(VISIT_BOUNDS.mostWidth, { message: `can be ${VISIT_BOUNDS.mostWidth} px at most` })
  width: number;
}

/** An address as a visitor's browser gets it. */
export class VisitBody extends SightRequest implements VisitPlan {
  @ValidateIf((visit: VisitBody) => visit.keep !== null)
  @IsString({ message: 'must be a text' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  keep: string | null;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(VISIT_BOUNDS.steps, { message: `can hold ${VISIT_BOUNDS.steps} steps at most` })
  @ValidateNested({ each: true })
  @Type(() => VisitStepBody)
  steps: VisitStepBody[];
}

/** A visit as it is kept with its site, and the pages it brought. */
export class StoredVisitBody {
  @ValidateNested()
  @Type(() => VisitBody)
  plan: VisitBody;

  /** Paths of its pages. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(VISIT_BOUNDS.steps + 1, { message: 'can hold one page a step at most' })
  @IsString({ each: true, message: 'must be paths' })
  @MaxLength(400, { each: true, message: 'can have 400 characters at most' })
  paths: string[];
}

export interface VisitDocument {
  readonly id: number;
  readonly plan: VisitPlan;
  readonly paths: readonly string[];
}

/** A page as it is now in the browser it was opened in. */
export interface SightDocument extends PageSight {
  /** JPEG as a data address, one pixel a CSS px. */
  readonly picture: string;
}

/** The browser that the product can start. */
export interface BrowserDocument {
  /** Its program; `null` where there is none. */
  readonly program: string | null;
  /** Whether it keeps pages in its own sandbox, which it cannot as root. */
  readonly isSandboxed: boolean;
  /** An address of the demo to try it with; empty when the demo is not served. */
  readonly example: string;
}
