import 'reflect-metadata';
import { IsIn, IsInt, IsObject, Matches, Max, Min, registerDecorator, ValidateIf } from 'class-validator';
import { ALL_NEWS_KINDS, NEWS_WAYS, type WantedNews } from '@/core/news/news';
import { DAY_WAYS, type DayWay, NUMBER_WAYS, type NumberWay, type Writing } from '@/core/writing/writing';

/** How somebody writes days and numbers; null: as the business does. */
export class WritingInput implements Writing {
  @ValidateIf((_of, value) => value !== null) @IsIn(DAY_WAYS) days!: DayWay | null;
  @ValidateIf((_of, value) => value !== null) @IsIn(NUMBER_WAYS) numbers!: NumberWay | null;
}

const isOneOf = (list: readonly string[], value: unknown): boolean => typeof value === 'string' && list.includes(value);

const Wanted = () => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'wanted',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) =>
        typeof value === 'object' &&
        value !== null &&
        !Array.isArray(value) &&
        Object.entries(value).every(
          ([kind, ways]) =>
            isOneOf(ALL_NEWS_KINDS, kind) &&
            Array.isArray(ways) &&
            ways.length <= NEWS_WAYS.length &&
            ways.every((way) => isOneOf(NEWS_WAYS, way)),
        ),
      defaultMessage: () => 'Choose what you want to hear of, by mail or in the browser.',
    },
  });

const HOUR = { message: 'Write the hour as 20:00.' };

/** Of what somebody wants to hear, and between which hours not. */
export class NewsInput {
  @IsObject() @Wanted() wanted!: WantedNews;
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, HOUR) quietFrom!: string;
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, HOUR) quietTo!: string;
}

/** Up to which of their news somebody has seen them. */
export class SeenNewsInput {
  @IsInt() @Min(1) @Max(Number.MAX_SAFE_INTEGER) upTo!: number;
}
