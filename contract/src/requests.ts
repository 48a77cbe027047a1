import 'reflect-metadata';
import {
  OVERRIDE_STATES,
  REACHES,
  HOUSE_PARTS,
  MOST_OWN_CSS,
  ROLE_NAME,
  type HousePart,
  type HouseShape,
  type Override,
  type OverrideState,
  type OverrideValue,
  type OwnCss,
  type PlainValue,
  type Reach,
  type RoleName,
  type Spot,
  type Through,
  type WidthRange,
} from '@upper-veneer/core';
import { Type } from 'class-transformer';
import {
  Allow,
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
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

const PLAIN_VALUE_KINDS = ['role', 'swatch', 'literal'] as const satisfies readonly PlainValue['kind'][];
const VALUE_KINDS = [...PLAIN_VALUE_KINDS, 'composite', 'house'] as const satisfies readonly OverrideValue['kind'][];

/** What names a colour of the palette, for the kinds of value that do. */
abstract class PaletteReference {
  abstract kind: string;

  @ValidateIf((body: PaletteReference) => body.kind === 'role')
  @Matches(ROLE_NAME, { message: 'is no role of the palette' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  role?: RoleName;

  @ValidateIf((body: PaletteReference) => body.kind === 'swatch')
  @IsInt({ message: 'must be the number of a swatch' })
  swatchId?: number;

  @ValidateIf((body: PaletteReference) => body.kind === 'role' || body.kind === 'swatch')
  @IsInt({ message: 'must be a whole number of lightness points' })
  @Min(-100, { message: 'cannot be more than 100 darker' })
  @Max(100, { message: 'cannot be more than 100 lighter' })
  shade?: number;

  @IsOptional()
  @IsNumber({}, { message: 'must be a number from 0 to 1' })
  @Min(0, { message: 'cannot be less than 0' })
  @Max(1, { message: 'cannot be more than 1' })
  alpha?: number | null;

  @ValidateIf((body: PaletteReference) => body.kind === 'literal' || body.kind === 'composite')
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 600, { message: 'must have 1 to 600 characters' })
  css?: string;
}

/** A role, a swatch or a literal on the wire. */
export class PlainValueBody extends PaletteReference {
  @IsIn(PLAIN_VALUE_KINDS, { message: 'must be role, swatch or literal' })
  kind: (typeof PLAIN_VALUE_KINDS)[number];
}

/** Value of an override on the wire: a plain one, or several colours in one text, such as a gradient's stops. */
export class OverrideValueBody extends PaletteReference {
  @IsIn(VALUE_KINDS, { message: 'must be role, swatch, literal, composite or house' })
  kind: (typeof VALUE_KINDS)[number];

  @ValidateIf((body: OverrideValueBody) => body.kind === 'house')
  @IsIn(HOUSE_PARTS, { message: 'is no part of the house shape' })
  part?: HousePart;

  @ValidateIf((body: OverrideValueBody) => body.kind === 'composite')
  @IsArray({ message: 'must be a list of colours' })
  @ArrayMaxSize(24, { message: 'can hold 24 colours at most' })
  @ValidateNested({ each: true })
  @Type(() => PlainValueBody)
  colors?: PlainValueBody[];
}

/** Widths an override holds at, on the wire, CSS px. */
export class WidthRangeBody implements WidthRange {
  @ValidateIf((body: WidthRangeBody) => body.min !== null)
  @IsInt({ message: 'must be a whole number of px, or nothing' })
  @Min(1, { message: 'must be 1 px or more' })
  @Max(10_000, { message: 'can be 10,000 px at most' })
  min: number | null;

  @ValidateIf((body: WidthRangeBody) => body.max !== null)
  @IsInt({ message: 'must be a whole number of px, or nothing' })
  @Min(1, { message: 'must be 1 px or more' })
  @Max(10_000, { message: 'can be 10,000 px at most' })
  max: number | null;
}

/** An element of a page, on the wire. */
class SpotBody implements Spot {
  @IsInt({ message: 'must be the number of a page' })
  pageId: number;

  @IsInt({ message: 'must be a running number' })
  @Min(0, { message: 'cannot be negative' })
  element: number;
}

/** What is meant of an element: itself or a pseudo-element, in a state. */
class AspectBody {
  @IsInt({ message: 'must be a running number' })
  @Min(0, { message: 'cannot be negative' })
  element: number;

  @IsString({ message: 'must be a pseudo-element’s name, or empty' })
  @Matches(/^[a-z-]{0,40}$/, { message: 'must be a pseudo-element’s name, or empty' })
  pseudo: string;

  @IsIn(OVERRIDE_STATES, { message: 'is no state of the Bench' })
  state: OverrideState;
}

/** What is behind a shadow root and changes through a custom property of its host. */
class ThroughBody extends AspectBody implements Through {
  @Matches(/^-?[a-z][a-z-]{1,39}$/, { message: 'is no property the Bench can override' })
  property: string;
}

/** An override on the wire: the core's, with what each member may be. */
export class OverrideBody extends AspectBody implements Override {
  @IsString({ message: 'must be a text' })
  @Length(1, 120, { message: 'must have 1 to 120 characters' })
  id: string;

  @IsOptional()
  @IsInt({ message: 'must be the number of a part' })
  partId: number | null;

  @IsInt({ message: 'must be the number of a page' })
  pageId: number;

  @IsIn(REACHES, { message: 'must be one, alike, group or everywhere' })
  reach: Reach;

  @ValidateIf((body: OverrideBody) => body.reach === 'group')
  @IsString({ message: 'must be the selector of the group' })
  @Length(1, 600, { message: 'must have 1 to 600 characters' })
  group?: string | null;

  @Matches(/^(?:-?[a-z][a-z-]{1,39}|--[\w-]{1,80})$/, { message: 'is no property the Bench can override' })
  property: string;

  @ValidateNested()
  @Type(() => OverrideValueBody)
  value: OverrideValue;

  @IsString({ message: 'must be a selector' })
  @Length(1, 4000, { message: 'must have 1 to 4000 characters' })
  selector: string;

  @IsBoolean({ message: 'must be true or false' })
  important: boolean;

  /** Ancestor whose state is meant, for the states of a parent. */
  @IsOptional()
  @IsInt({ message: 'must be a running number' })
  @Min(0, { message: 'cannot be negative' })
  parent?: number | null;

  /** Widths it holds at; every width when absent. */
  @IsOptional()
  @ValidateNested()
  @Type(() => WidthRangeBody)
  widths?: WidthRange | null;

  /** Pages it is kept to; all when absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list of pages' })
  @ArrayMaxSize(500, { message: 'can hold 500 pages at most' })
  @IsInt({ each: true, message: 'must hold numbers of pages' })
  pages?: readonly number[] | null;

  /** States that are meant to look as they do beside it. */
  @IsOptional()
  @IsArray({ message: 'must be a list of states' })
  @ArrayMaxSize(20, { message: 'can hold 20 states at most' })
  @IsIn(OVERRIDE_STATES, { each: true, message: 'must be states' })
  meant?: readonly OverrideState[] | null;

  /** Single matches left out of its reach. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(500, { message: 'can hold 500 elements at most' })
  @ValidateNested({ each: true })
  @Type(() => SpotBody)
  spared?: readonly Spot[] | null;

  /** For a custom property set on a shadow host: what it was set for. */
  @IsOptional()
  @ValidateNested()
  @Type(() => ThroughBody)
  through?: Through | null;

  /** Whether the designer wrote the selector. */
  @IsOptional()
  @IsBoolean({ message: 'must be true or false' })
  isByHand?: boolean;
}

/** CSS of the designer's own in one section of the sheet. */
export class OwnCssBody implements OwnCss {
  @ValidateIf(({ partId }: OwnCssBody) => partId !== null)
  @IsInt({ message: 'must be the number of a part, or null' })
  partId: number | null;

  @IsString({ message: 'must be a text' })
  @Length(1, MOST_OWN_CSS, { message: `must have 1 to ${MOST_OWN_CSS} characters` })
  css: string;
}

/** A change to the draft: overrides put and dropped, and all CSS of the designer's own where it is given, in one step of undo. */
export class ChangeRequest {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  put: readonly Override[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(3000, { message: 'can hold 3,000 overrides at most' })
  @IsString({ each: true, message: 'must hold ids' })
  drop: readonly string[];

  /** Item of the client's list that the overrides put are made for; none when absent. */
  @IsOptional()
  @Matches(/^[\w-]{1,80}$/, { message: 'must be the id of an item' })
  forItem?: string;

  /** What stands in place of all that stood; what there is stays where it is left out. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(301, { message: 'can hold one a section' })
  @ValidateNested({ each: true })
  @Type(() => OwnCssBody)
  ownCss?: readonly OwnCss[];
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

  /** Told by the server and kept by it; what is sent is passed over. */
  @IsOptional()
  @Allow()
  token?: string | null;

  /** Where it came from; what is stored stays where it is absent. */
  @IsOptional()
  @IsString({ message: 'must be a text' })
  @MaxLength(200, { message: 'can have 200 characters at most' })
  origin?: string;

  /** What was noted of it; what is stored stays where it is absent. */
  @IsOptional()
  @IsString({ message: 'must be a text' })
  @MaxLength(400, { message: 'can have 400 characters at most' })
  note?: string;
}

/** What fills a role on the wire: a swatch by its name. */
export class RoleBody {
  @Matches(ROLE_NAME, { message: 'is no role of the palette' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  role: RoleName;

  @IsString({ message: 'must name a swatch' })
  swatch: string;

  @IsInt({ message: 'must be a whole number of lightness points' })
  @Min(-100, { message: 'cannot be more than 100 darker' })
  @Max(100, { message: 'cannot be more than 100 lighter' })
  shade: number;

  /** Whether the product filled it and nobody confirmed that. */
  @IsOptional()
  @IsBoolean({ message: 'must be true or false' })
  isAssumed?: boolean;
}

/** How a second lighting is told, on the wire. */
class LightingSignalBody {
  @IsIn(['scheme', 'marker'], { message: 'must be scheme or marker' })
  kind: 'scheme' | 'marker';

  @ValidateIf((body: LightingSignalBody) => body.kind === 'marker')
  @IsIn(['html', 'body'], { message: 'must be html or body' })
  on?: 'html' | 'body';

  @ValidateIf((body: LightingSignalBody) => body.kind === 'marker')
  @IsString({ message: 'must be the name of an attribute' })
  @Matches(/^[a-z_][a-z0-9_.-]{0,79}$/i, { message: 'must be the name of an attribute' })
  attribute?: string;

  @ValidateIf((body: LightingSignalBody) => body.kind === 'marker')
  @IsString({ message: 'must be a text' })
  @MaxLength(120, { message: 'can have 120 characters at most' })
  value?: string;
}

/** The second lighting on the wire. */
export class SecondLightingBody {
  @ValidateNested()
  @Type(() => LightingSignalBody)
  told: LightingSignalBody;

  /** Roles set by hand; the others are derived. */
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(64, { message: 'can hold 64 roles at most' })
  @ValidateNested({ each: true })
  @Type(() => RoleBody)
  roles: readonly RoleBody[];
}

/** The house shape on the wire: what is absent is not settled. */
class HouseShapeBody implements HouseShape {
  @IsOptional()
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 20, { message: 'must have 1 to 20 characters' })
  corner?: string;

  @IsOptional()
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 20, { message: 'must have 1 to 20 characters' })
  edge?: string;

  @IsOptional()
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 300, { message: 'must have 1 to 300 characters' })
  shadow?: string;

  @IsOptional()
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 300, { message: 'must have 1 to 300 characters' })
  'text-family'?: string;

  @IsOptional()
  @IsString({ message: 'must be a CSS value' })
  @Length(1, 300, { message: 'must have 1 to 300 characters' })
  'heading-family'?: string;
}

/** A whole palette: what fills a role is named. */
export class PaletteBody {
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(200, { message: 'can hold 200 swatches at most' })
  @ValidateNested({ each: true })
  @Type(() => SwatchBody)
  swatches: readonly SwatchBody[];

  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(64, { message: 'can hold 64 roles at most' })
  @ValidateNested({ each: true })
  @Type(() => RoleBody)
  roles: readonly RoleBody[];

  /** `null` takes the second lighting away; what is stored stays where it is absent. */
  @IsOptional()
  @ValidateNested()
  @Type(() => SecondLightingBody)
  second?: SecondLightingBody | null;

  /** What is stored stays where it is absent. */
  @IsOptional()
  @ValidateNested()
  @Type(() => HouseShapeBody)
  shape?: HouseShapeBody;

  /** Colours of an older brand that are to go, as CSS; what is stored stays where it is absent. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(40, { message: 'can hold 40 colours at most' })
  @IsString({ each: true, message: 'must be CSS colours' })
  @Length(1, 100, { each: true, message: 'must have 1 to 100 characters each' })
  former?: readonly string[];
}

/** The whole palette as it is to be, in one step of undo. */
export class PaletteRequest extends PaletteBody {
  @IsString({ message: 'must be a text' })
  @Length(1, 200, { message: 'must have 1 to 200 characters' })
  label: string;

  /** Overrides that change in the same step, such as those of a swatch that goes. */
  @IsOptional()
  @IsArray({ message: 'must be a list' })
  @ArrayMaxSize(2000, { message: 'can hold 2,000 overrides at most' })
  @ValidateNested({ each: true })
  @Type(() => OverrideBody)
  overrides?: readonly Override[];
}

/** Opens the draft's stylesheet to pages elsewhere under an address of its own, or ends that. */
export class LiveRequest {
  @IsBoolean({ message: 'must be true or false' })
  isOn: boolean;
}

/** Brings a revision back into the draft, as one step of undo. */
export class BringBackRequest {
  /** Id of a part, `null` for what is site-wide, `all` for the whole. */
  @ValidateIf((_, value) => value !== null && value !== 'all')
  @IsInt({ message: 'must be the id of a part, null, or "all"' })
  part: number | null | 'all';
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
