import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsIn,
  IsInt,
  IsISO8601,
  IsObject,
  IsString,
  Length,
  Matches,
  Max,
  Min,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import {
  DayCountBody,
  DecisionRequest,
  MOST_VARIATIONS,
  TrialTerms,
  VARIATION_NAME,
  VariationProofBody,
  VariationSettingsBody,
} from './trial-requests.js';

/** A fork of the draft, by the revision that holds it. */
abstract class ForkOf {
  @IsString({ message: 'must be a text' })
  @Length(1, 80, { message: 'must have 1 to 80 characters' })
  name: string;

  @IsInt({ message: 'must be the number of a revision' })
  @Min(1, { message: 'must be the number of a revision' })
  revision: number;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(20, { message: 'can hold 20 parts at most' })
  @ValidateNested({ each: true })
  @Type(() => VariationSettingsBody)
  settings: readonly VariationSettingsBody[];
}

/** A look of a trial, as an archive keeps it. */
export class ArchiveLook extends ForkOf {
  @Matches(VARIATION_NAME, { message: 'must be a variation' })
  variation: string;
}

/** A variation, as an archive keeps it. */
export class ArchiveVariation extends ForkOf {
  @IsISO8601({}, { message: 'must be a moment' })
  madeAt: string;
}

/** What was counted, as an archive keeps it. */
export class ArchiveCount extends DayCountBody {
  @IsIn(['counted', 'made-up', 'brought-in'], { message: 'must be counted, made-up or brought-in' })
  source: 'counted' | 'made-up' | 'brought-in';

  @IsInt({ message: 'must be the number of a conversion' })
  @Min(0, { message: 'must be the number of a conversion' })
  @Max(3, { message: 'must be the number of a conversion' })
  conversion: number;
}

/** What was decided, as an archive keeps it. */
export class ArchiveDecision extends DecisionRequest {
  @IsISO8601({}, { message: 'must be a moment' })
  at: string;

  /** What was known then. */
  @IsObject({ message: 'must be figures' })
  figures: object;
}

/** A trial, as an archive keeps it. */
export class ArchiveTrial extends TrialTerms {
  @IsIn(['planned', 'running', 'paused', 'decided'], { message: 'is no state of a trial' })
  state: 'planned' | 'running' | 'paused' | 'decided';

  @IsArray({ message: 'must be a list' })
  @ArrayMinSize(2, { message: 'must hold two looks or more' })
  @ArrayMaxSize(MOST_VARIATIONS, { message: `can hold ${MOST_VARIATIONS} looks at most` })
  @ValidateNested({ each: true })
  @Type(() => ArchiveLook)
  looks: readonly ArchiveLook[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(MOST_VARIATIONS, { message: 'can hold one a variation' })
  @ValidateNested({ each: true })
  @Type(() => VariationProofBody)
  proofs: readonly VariationProofBody[];

  @IsISO8601({}, { message: 'must be a moment' })
  madeAt: string;

  @ValidateIf(({ startedAt }: ArchiveTrial) => startedAt !== null)
  @IsISO8601({}, { message: 'must be a moment' })
  startedAt: string | null;

  @ValidateIf(({ decision }: ArchiveTrial) => decision !== null)
  @ValidateNested()
  @Type(() => ArchiveDecision)
  decision: ArchiveDecision | null;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(100_000, { message: 'can hold 100,000 counts at most' })
  @ValidateNested({ each: true })
  @Type(() => ArchiveCount)
  counts: readonly ArchiveCount[];
}
