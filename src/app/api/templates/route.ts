import { desk, Nothing } from '@/app/answer';
import { keepAsTemplate, templateNames } from '@/flows/invoice/templates';
import { paperOf, TemplateInput } from '@/input/paper-input';

export const GET = desk(Nothing, (actor) => templateNames(actor));

export const POST = desk(TemplateInput, (actor, { input }) =>
  keepAsTemplate(actor, input.name, paperOf(input.paper), input.withFiles),
);
