import { desk } from '@/app/answer';
import { keepTaxRules } from '@/flows/records/taxes';
import { TaxesInput } from '@/input/profile-input';

export const PUT = desk(TaxesInput, (actor, { input }) => keepTaxRules(actor, input.rules));
