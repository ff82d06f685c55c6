import { IsIn, IsOptional, IsString, MaxLength } from 'class-validator';

export class UploadInput {
  @IsIn(['attachment', 'logo', 'picture', 'document', 'seal', 'authorisation', 'digital']) purpose!:
    | 'attachment'
    | 'logo'
    | 'picture'
    | 'document'
    | 'seal'
    | 'authorisation'
    | 'digital';
  @IsString() @MaxLength(400) name!: string;
}

export class FileNameInput {
  @IsString() @MaxLength(400) name!: string;
}

/** As which kind of picture, and whether to be kept as a file. */
export class QrInput {
  @IsOptional() @IsIn(['svg', 'png']) as?: 'svg' | 'png';
  @IsOptional() @IsIn(['yes']) keep?: 'yes';
}
