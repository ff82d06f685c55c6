import { desk } from '@/app/answer';
import { mailPartnerLink } from '@/flows/payout/partner-page';
import { PartnerLinkInput } from '@/input/payout-input';

export const POST = desk(PartnerLinkInput, (actor, { params, input }) =>
  mailPartnerLink(actor, params.id ?? '', input.requestKey, input.asked ?? ''),
);
