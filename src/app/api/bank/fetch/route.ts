import { desk, Nothing } from '@/app/answer';
import { fetchStatementsNow } from '@/flows/bank/import-statement';

export const POST = desk(Nothing, (actor) => fetchStatementsNow(actor));
