import 'reflect-metadata';
import {
  KIT_FORMAT,
  KIT_VERSION,
  MOST_OWN_CSS,
  OVERRIDE_STATES,
  type Kit,
  type KitRule,
  type OverrideState,
  type OverrideValue,
  type WidthRange,
} from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsObject,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { OverrideValueBody, WidthRangeBody } from './requests.js';

/** One thing a kit changes, on the wire and in a file. */
export class KitRuleBody implements KitRule {
  @ValidateIf(({ elements }: KitRuleBody) => elements !== null)
  @IsString({ message: 'must be a selector, or null' })
  @Length(1, 4000, { message: 'must have 1 to 4000 characters' })
  elements: string | null;

  @IsString({ message: 'must be a selector' })
  @Length(1, 4000, { message: 'must have 1 to 4000 characters' })
  selector: string;

  @Matches(/^[a-z-]{0,60}$/, { message: 'must be a pseudo-element without colons' })
  pseudo: string;

  @IsIn(OVERRIDE_STATES, { message: 'is no state' })
  state: OverrideState;

  @Matches(/^(?:-?[a-z][a-z-]{1,39}|--[\w-]{1,80})$/, { message: 'is no property' })
  property: string;

  @ValidateNested()
  @Type(() => OverrideValueBody)
  value: OverrideValue;

  @IsBoolean({ message: 'must be true or false' })
  important: boolean;

  @ValidateIf(({ widths }: KitRuleBody) => widths !== null)
  @ValidateNested()
  @Type(() => WidthRangeBody)
  widths: WidthRange | null;
}

/** A part's finished match, on the wire and in a file. */
export class KitBody implements Kit {
  @IsIn([KIT_FORMAT], { message: `must be "${KIT_FORMAT}"` })
  format: typeof KIT_FORMAT;

  @IsIn([KIT_VERSION], { message: `must be ${KIT_VERSION}: this version of the product reads no other` })
  version: typeof KIT_VERSION;

  @IsString({ message: 'must be a text' })
  @Length(1, 120, { message: 'must have 1 to 120 characters' })
  name: string;

  @IsString({ message: 'must be a text' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  madeOn: string;

  @IsString({ message: 'must be a selector' })
  @Length(1, 4000, { message: 'must have 1 to 4000 characters' })
  root: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(400, { message: 'can hold 400 classes at most' })
  @IsString({ each: true, message: 'must hold classes' })
  @Length(1, 200, { each: true, message: 'must hold classes of 1 to 200 characters' })
  classes: readonly string[];

  @IsString({ message: 'must be a text' })
  @MaxLength(20_000, { message: 'can have 20,000 characters at most' })
  markup: string;

  /** Hex by role. */
  @IsObject({ message: 'must be colours by role' })
  roles: Kit['roles'];

  @IsArray({ message: 'must be a list' })
  @ArrayMinSize(1, { message: 'must hold a rule' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 rules at most' })
  @ValidateNested({ each: true })
  @Type(() => KitRuleBody)
  rules: readonly KitRuleBody[];

  @IsOptional()
  @IsString({ message: 'must be CSS' })
  @MaxLength(MOST_OWN_CSS, { message: `can have ${MOST_OWN_CSS} characters at most` })
  ownCss?: string;
}

/** A kit as the server keeps it. */
export interface KitDocument {
  readonly id: number;
  /** ISO 8601. */
  readonly keptAt: string;
  readonly kit: Kit;
}
