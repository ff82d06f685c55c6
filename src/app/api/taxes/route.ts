import { desk } from '@/app/answer';
import { TaxesInput } from '@/app/input/profile-input';
import { keepTaxRules } from '@/flows/records/taxes';

export const PUT = desk(TaxesInput, (actor, { input }) => keepTaxRules(actor, input.rules));
