import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import type { House } from '@/core/front/front';
import type { NumberSeries } from '@/core/invoice/numbering';
import type { BusinessTax } from '@/core/tax/business-tax';
import type { ShownFirstDay } from '../house/what-opens';
import type { Kept } from './draft-state';
import type { TermsChoice } from './paper-after';

export type ComposerProps = {
  readonly id: string;
  /** Whether it was begun by key. */
  readonly byKey?: boolean;
  readonly draft: Kept;
  readonly customer: Customer | null;
  readonly taxes: readonly BusinessTax[];
  readonly currency: string;
  readonly locale: string;
  readonly zone: string;
  readonly today: CalendarDate;
  /** The number that it would get, by the series that is chosen. */
  readonly nextNumbers: Readonly<Record<string, string>>;
  readonly series: readonly NumberSeries[];
  readonly terms: readonly TermsChoice[];
  readonly templates: readonly { readonly id: string; readonly name: string }[];
  /** What comes again to this customer. */
  readonly recurring: readonly { readonly id: string; readonly name: string }[];
  /** The customer's link; it opens once the invoice is sent. */
  readonly link: string;
  readonly pricesIncludeTax: boolean;
  /** Who asks, with the names and places under which they can. */
  readonly house: House;
  readonly usualReminders: readonly number[];
  readonly mailTexts: Readonly<Record<string, string>>;
  readonly hasAccount: boolean;
  /** The smallest card payments by currency, in minor units. */
  readonly smallestPayments: Readonly<Record<string, number>>;
  readonly ownEmail: string;
  /** When it goes out by itself, in words; empty where it does not. */
  readonly planned: string;
  /** A sent invoice that is changed, with the version that was read; null for a draft. */
  readonly sentVersion: number | null;
  readonly mayAsk: boolean;
  /** Whether the business can be paid through the processor (yet). */
  readonly cardsOpen: boolean;
  /** How the first days stand, where they are not over. */
  readonly first: ShownFirstDay | null;
};
