import 'reflect-metadata';
import { IsBoolean, IsOptional, IsString, MaxLength } from 'class-validator';

/** How a sheet is written, besides the names of its colours. */
export class SheetWriting {
  @IsBoolean({ message: 'must be true or false' })
  asValues: boolean;

  @IsBoolean({ message: 'must be true or false' })
  hoverOnly: boolean;

  /** An older engine that is to be reached; no `color-mix()` is written then. */
  @IsOptional()
  @IsString({ message: 'must be a text' })
  @MaxLength(60, { message: 'can have 60 characters at most' })
  flatFor?: string;

  /** Whether declarations stand by the letters of their names. */
  @IsOptional()
  @IsBoolean({ message: 'must be true or false' })
  isByLetters?: boolean;
}
