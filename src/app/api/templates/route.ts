import { desk, Nothing } from '@/app/answer';
import { paperOf, TemplateInput } from '@/app/input/paper-input';
import { keepAsTemplate, templateNames } from '@/flows/invoice/templates';

export const GET = desk(Nothing, (actor) => templateNames(actor));

export const POST = desk(TemplateInput, (actor, { input }) => keepAsTemplate(actor, input.name, paperOf(input.paper)));
