import { desk, Nothing } from '@/app/answer';
import { dropTemplate } from '@/flows/invoice/templates';

export const DELETE = desk(Nothing, (actor, { params }) => dropTemplate(actor, params.id ?? ''));
