import { Nothing, open } from '@/app/answer';
import { askPartnerLink } from '@/flows/payout/partner-page';

export const POST = open(Nothing, ({ params }) => askPartnerLink(params.token ?? ''));
