import 'reflect-metadata';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsUUID,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import type { ReceivedBy } from '@/core/ledger/movements';
import {
  AFTERWARDS,
  type Afterwards,
  type ChargingPolicy,
  MISSED_POLICIES,
  type MissedPolicy,
  MOST_RETRIES,
} from '@/core/plan/dunning';
import { PLAN_KINDS, type PlanKind, type PlanPay, type PlanTerms } from '@/core/plan/plan';
import { CHARGE_STATES, type ChargeState, PLAN_STATES, type PlanState } from '@/core/plan/state';
import type { AuthorisedHow } from '@/core/timeline/timeline';
import { CardToken } from './card-token';
import { Day, DayOrNone } from './day';
import { PaperInput } from './paper-input';
import { ScheduleInput } from './recurring-input';
import { trimmed } from './trimmed';

const TYPED = 40;

class PlanTermsInput implements PlanTerms {
  @IsIn(PLAN_KINDS) kind!: PlanKind;
  @IsString() @trimmed @MaxLength(120, { message: 'What it is for holds 120 letters at most.' }) name!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => PaperInput) paper!: PaperInput;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => ScheduleInput) schedule!: ScheduleInput;
  @IsBoolean() firstNow!: boolean;
  @IsString() @MaxLength(TYPED) setUp!: string;
  @IsBoolean() freeFirst!: boolean;
  @IsString() @MaxLength(TYPED) deposit!: string;
  @IsIn(['even', 'last']) leftover!: 'even' | 'last';
  @IsIn(['card', 'invoice']) pay!: PlanPay;
  @IsBoolean() receipts!: boolean;
  @IsOptional() @IsInt() @Min(1) @Max(60) noticeDays!: number | null;
}

export class KeepPlanInput {
  @IsDefined() @IsObject() @ValidateNested() @Type(() => PlanTermsInput) terms!: PlanTermsInput;
  @IsString() @MaxLength(4000) memo!: string;
  @IsString() @trimmed @MaxLength(80) reference!: string;
  @IsOptional() @IsInt() @Min(0) revision?: number;
}

export class SendPlanInput {
  @IsIn(['mail', 'text', 'chat', 'link']) way!: 'mail' | 'text' | 'chat' | 'link';
}

/** A card on file, or one just typed into the processor's fields. */
export class CardGivenInput {
  @IsOptional() @IsUUID() cardId?: string;
  @IsOptional() @CardToken() cardToken?: string;
  @IsOptional() @IsUUID() key?: string;
}

export class GivenInput {
  @IsIn(['drawn', 'ticked', 'telephone', 'paper']) how!: AuthorisedHow;
  @IsString() @trimmed @MinLength(1, { message: 'Write who authorised it.' }) @MaxLength(120) givenBy!: string;
  @IsOptional() @IsUUID() fileId!: string | null;
}

/** A running plan as it is to be, and how its customer agreed at the desk. */
export class ChangeTermsInput extends KeepPlanInput {
  @IsOptional() @IsObject() @ValidateNested() @Type(() => GivenInput) given?: GivenInput;
}

export class StartPlanInput {
  @IsOptional() @IsObject() @ValidateNested() @Type(() => CardGivenInput) card?: CardGivenInput;
  @IsOptional() @IsObject() @ValidateNested() @Type(() => GivenInput) given?: GivenInput;
  /** The card that is tried where the first is refused. */
  @IsOptional() @IsUUID() secondId?: string | null;
}

export class PlanActionInput {
  @IsIn(['pause', 'resume', 'cancel', 'cancel-later', 'finish-early', 'price', 'withdraw', 'duplicate', 'missed'])
  action!:
    | 'pause'
    | 'resume'
    | 'cancel'
    | 'cancel-later'
    | 'finish-early'
    | 'price'
    | 'withdraw'
    | 'duplicate'
    | 'missed';
  @IsOptional() @IsString() @MaxLength(TYPED) price?: string;
  /** Until when it is paused; empty until somebody resumes it. */
  @IsOptional() @DayOrNone() until?: string;
  @IsOptional() @IsIn(['all', 'last', 'none']) which?: 'all' | 'last' | 'none';
  /** Of a balance in parts that is cancelled: what is left of its invoice stays owed. */
  @IsOptional() @IsBoolean() keepOwed?: boolean;
}

export class ChargeActionInput {
  @IsIn(['again', 'paid', 'waive', 'move', 'skip', 'price']) action!:
    | 'again'
    | 'paid'
    | 'waive'
    | 'move'
    | 'skip'
    | 'price';
  @IsOptional() @IsUUID() cardId?: string | null;
  @IsOptional() @IsIn(['transfer', 'cash', 'cheque', 'other']) by?: ReceivedBy;
  @IsOptional() @IsString() @trimmed @MaxLength(80) reference?: string;
  @IsOptional() @DayOrNone() to?: string;
  /** That it is charged at once where the day is past. */
  @IsOptional() @IsBoolean() sure?: boolean;
  @IsOptional() @IsString() @trimmed @MaxLength(40) price?: string;
}

export class ChargesAgainInput {
  @IsArray() @ArrayMaxSize(500) @IsUUID('all', { each: true }) ids!: string[];
}

export class AcceptPlanInput {
  @CardToken() cardToken!: string;
  @IsUUID() key!: string;
  @IsString() @MaxLength(120) name!: string;
  @IsBoolean() agrees!: boolean;
  @IsOptional() @IsString() @MaxLength(5) lang?: string;
}

export class AcceptChangeInput {
  @IsString() @MaxLength(120) name!: string;
  @IsBoolean() agrees!: boolean;
}

export class UpcomingInput {
  @IsOptional() @IsString() @MaxLength(120) words?: string;
  @IsOptional() @IsIn(['', ...CHARGE_STATES]) state?: ChargeState | '';
  @IsOptional() @DayOrNone() from?: string;
  @IsOptional() @DayOrNone() to?: string;
  @IsOptional() @IsIn(['yes', '']) notCarried?: string;
  @IsOptional() @DayOrNone() key?: string;
  @IsOptional() @IsUUID() id?: string;
}

/** The same in a page's address: which month is drawn, and how. */
export class UpcomingPageInput extends UpcomingInput {
  @IsOptional() @Matches(/^(19|20|21)\d\d-(0[1-9]|1[0-2])$/) month?: string;
  @IsOptional() @IsIn(['list', 'calendar']) as?: 'list' | 'calendar';
}

/** With which draft or for which customer the composer is opened. */
export class ComposePlanInput {
  @IsOptional() @IsUUID() plan?: string;
  @IsOptional() @IsUUID() customer?: string;
}

export class AddCardInput {
  @IsUUID() customerId!: string;
  @CardToken() cardToken!: string;
  @IsUUID() key!: string;
  @IsDefined() @IsObject() @ValidateNested() @Type(() => GivenInput) given!: GivenInput;
}

export class OrderCardsInput {
  @IsUUID() customerId!: string;
  @IsArray() @ArrayMaxSize(50) @IsUUID('all', { each: true }) ids!: string[];
}

export class OwnPageInput {
  @IsIn(['card', 'remove', 'withdraw', 'address']) action!: 'card' | 'remove' | 'withdraw' | 'address';
  @IsOptional() @CardToken() cardToken?: string;
  @IsOptional() @IsUUID() key?: string;
  @IsOptional() @IsString() @MaxLength(120) name?: string;
  @IsOptional() @IsBoolean() agrees?: boolean;
  @IsOptional() @IsUUID() cardId?: string;
  @IsOptional() @IsUUID() planId?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(3) @IsString({ each: true }) @MaxLength(120, { each: true }) lines?: string[];
  @IsOptional() @IsString() @MaxLength(80) city?: string;
  @IsOptional() @IsString() @MaxLength(20) postalCode?: string;
}

class HolidayInput {
  @Day('Write a day as 2027-01-01.') on!: string;
  @IsString() @MaxLength(120) name!: string;
}

export class ChargingInput implements ChargingPolicy {
  @Matches(/^([01]\d|2[0-3]):[0-5]\d$/, { message: 'Write the hour as 09:00.' }) hour!: string;
  @IsArray()
  @ArrayMaxSize(MOST_RETRIES)
  @IsInt({ each: true, message: 'Write days as whole numbers, such as 3, 5, 9.' })
  @Min(1, { each: true, message: 'Days lie between 1 and 60.' })
  @Max(60, { each: true, message: 'Days lie between 1 and 60.' })
  retryDays!: number[];
  @IsBoolean() secondCard!: boolean;
  @IsBoolean() tellCustomer!: boolean;
  @IsIn(AFTERWARDS) afterwards!: Afterwards;
  @IsInt() @Min(1) @Max(120) expiryDays!: number;
  @IsInt() @Min(1) @Max(60) remindDays!: number;
  @IsInt() @Min(1) @Max(365) lapseDays!: number;
  @IsIn(MISSED_POLICIES) missed!: MissedPolicy;
  @IsArray() @ArrayMaxSize(1000) @ValidateNested({ each: true }) @Type(() => HolidayInput) holidays!: HolidayInput[];
  @IsOptional() @IsString() @trimmed @MaxLength(4000) wording?: string;
}

/** Which card is meant; null where none was given. */
export const cardGiven = (
  card: CardGivenInput | undefined,
): { cardId: string } | { cardToken: string; key: string } | null =>
  card?.cardId
    ? { cardId: card.cardId }
    : card?.cardToken && card.key
      ? { cardToken: card.cardToken, key: card.key }
      : null;

export class CardsOfInput {
  @IsUUID() customerId!: string;
}

/** What a payment at the desk would come to. */
export class DeskQuoteInput {
  @IsUUID() customerId!: string;
  @IsString() @MaxLength(TYPED) price!: string;
}

/** A single payment at the desk: what for, how much, with a card on file or one typed now. */
export class DeskPaymentInput {
  @IsUUID() customerId!: string;
  @IsString() @trimmed @MinLength(1, { message: 'Write what it is for.' }) @MaxLength(200) what!: string;
  @IsString() @MaxLength(TYPED) price!: string;
  @IsUUID() attemptKey!: string;
  @IsOptional() @IsUUID() cardId?: string;
  @IsOptional() @CardToken() cardToken?: string;
}

/** For which plan, or for which customer's single purchases. */
export class PaperToSignInput {
  @IsOptional() @IsUUID() plan?: string;
  @IsOptional() @IsUUID() customer?: string;
}

/** A table of plans as text. */
export class ManyPlansInput {
  @IsString() @MaxLength(1_000_000) text!: string;
  /** Made by the screen for one press; without it the rows are only looked at. */
  @IsOptional() @IsUUID() key?: string;
}

/** By which way a customer gets the link to their own page. */
export class OwnPageWayInput {
  @IsIn(['mail', 'text', 'chat']) way!: 'mail' | 'text' | 'chat';
}

/** Which plans are looked for: by words, and a state or those with a refused charge. */
export class PlanListInput {
  @IsOptional() @IsString() @MaxLength(120) words?: string;
  @IsOptional() @IsIn(['', 'refused', ...PLAN_STATES]) show?: PlanState | 'refused' | '';
}
