import { desk, Nothing, textAnswer } from '@/app/answer';
import { exportTaxRules } from '@/flows/records/taxes';

export const GET = desk(Nothing, async (actor) => textAnswer('tax-rules.csv', 'text/csv', await exportTaxRules(actor)));
