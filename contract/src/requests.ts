import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, Length, Matches, Max, MaxLength, Min, ValidateIf, ValidateNested,
} from 'class-validator';

/** Names that core and contract share; kept as plain lists so that both sides of the wire validate alike. */
export const STATES = ['rest', 'visited', 'hover', 'focus', 'active'] as const;
export const REACH_NAMES = ['one', 'alike', 'everywhere'] as const;
export const VALUE_KINDS = ['role', 'swatch', 'literal'] as const;
export const ROLES = ['ground', 'panel', 'ink', 'soft-ink', 'line', 'accent', 'on-accent', 'second', 'on-second', 'link', 'visited', 'ring', 'signal', 'on-signal'] as const;

/** Value of an override on the wire: one of three kinds. */
export class ValueBody {
  @IsIn(VALUE_KINDS, { message: 'must be role, swatch or literal' })
  kind: (typeof VALUE_KINDS)[number];

  @ValidateIf((body: ValueBody) => body.kind === 'role')
  @IsIn(ROLES, { message: 'is no role of the palette' })
  role?: (typeof ROLES)[number];

  @ValidateIf((body: ValueBody) => body.kind === 'swatch')
  @IsInt({ message: 'must be the number of a swatch' })
  swatchId?: number;

  @ValidateIf((body: ValueBody) => body.kind !== 'literal')
  @IsInt({ message: 'must be a whole number of lightness points' })
  @Min(-100, { message: 'cannot be more than 100 darker' })
  @Max(100, { message: 'cannot be more than 100 lighter' })
  shade?: number;

  @ValidateIf((body: ValueBody) => body.kind === 'literal')
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  css?: string;
}

/** An override on the wire. */
export class OverrideBody {
  @IsString({ message: 'must be a text' })
  @Length(1, 120, { message: 'must have 1 to 120 characters' })
  id: string;

  @IsOptional()
  @IsInt({ message: 'must be the number of a part' })
  partId: number | null;

  @IsInt({ message: 'must be the number of a page' })
  pageId: number;

  @IsInt({ message: 'must be a running number' })
  @Min(0, { message: 'cannot be negative' })
  element: number;

  @IsString({ message: 'must be a pseudo-element’s name, or empty' })
  @Matches(/^[a-z-]{0,40}$/, { message: 'must be a pseudo-element’s name, or empty' })
  pseudo: string;

  @IsIn(REACH_NAMES, { message: 'must be one, alike or everywhere' })
  reach: (typeof REACH_NAMES)[number];

  @IsIn(STATES, { message: 'must be rest, visited, hover, focus or active' })
  state: (typeof STATES)[number];

  @Matches(/^(?:color|background-color|background-image|border-color|border-(?:top|right|bottom|left)-color)$/, { message: 'is no property the Bench can override' })
  property: string;

  @ValidateNested()
  @Type(() => ValueBody)
  value: ValueBody;

  @IsString({ message: 'must be a selector' })
  @Length(1, 4000, { message: 'must have 1 to 4000 characters' })
  selector: string;

  @IsBoolean({ message: 'must be true or false' })
  important: boolean;
}

/** A change to the draft: overrides put and dropped, in one step of undo. */
export class ChangeRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  put: OverrideBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 overrides at most' })
  @IsString({ each: true, message: 'must hold ids' })
  drop: string[];
}

/** A swatch on the wire; `id` 0 for a new one. */
export class SwatchBody {
  @IsInt({ message: 'must be the number of a swatch, or 0 for a new one' })
  @Min(0, { message: 'must be the number of a swatch, or 0 for a new one' })
  id: number;

  @IsString({ message: 'must be a text' })
  @Length(1, 60, { message: 'must have 1 to 60 characters' })
  @Matches(/[\p{L}\p{N}]/u, { message: 'needs a letter or a digit' })
  name: string;

  @IsString({ message: 'must be a CSS colour' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  css: string;
}

/** What fills a role on the wire: a swatch by its name. */
export class RoleBody {
  @IsIn(ROLES, { message: 'is no role of the palette' })
  role: (typeof ROLES)[number];

  @IsString({ message: 'must name a swatch' })
  swatch: string;

  @IsInt({ message: 'must be a whole number of lightness points' })
  @Min(-100, { message: 'cannot be more than 100 darker' })
  @Max(100, { message: 'cannot be more than 100 lighter' })
  shade: number;
}

/** The whole palette as it is to be, in one step of undo. */
export class PaletteRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 swatches at most' })
  @ValidateNested({ each: true })
  @Type(() => SwatchBody)
  swatches: SwatchBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(50, { message: 'can hold 50 roles at most' })
  @ValidateNested({ each: true })
  @Type(() => RoleBody)
  roles: RoleBody[];

  /** Overrides that change in the same step, such as those of a swatch that goes. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(2000, { message: 'can hold 2,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  overrides?: OverrideBody[];
}

/** Saves the draft as a revision. */
export class RevisionRequest {
  @IsString({ message: 'must be a text' })
  @MaxLength(120, { message: 'can have 120 characters at most' })
  note: string;
}

/** Publishes a revision. */
export class PublicationRequest {
  @IsInt({ message: 'must be the number of a revision' })
  @Min(1, { message: 'must be the number of a revision' })
  revision: number;
}

/** A colour as someone types it into a field. */
export class TypedColor {
  @IsString({ message: 'Type a colour' })
  @Length(1, 200, { message: 'Type a colour of 1 to 200 characters' })
  text: string;
}
