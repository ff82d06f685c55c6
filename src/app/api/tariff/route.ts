import { desk } from '@/app/answer';
import { keepTariff } from '@/flows/records/profile';
import { TariffInput } from '@/input/profile-input';

export const PUT = desk(TariffInput, (actor, { input }) => keepTariff(actor, input.lines));
