import type { Seller } from '@/core/invoice/printed';
import { ContactLine } from '../contact-line';

/** Who the paper comes from, as it stands at its head. */
export function PaperLetterhead({ seller, logo }: { seller: Seller; logo: string | null }) {
  return (
    <div className="flex flex-wrap items-baseline justify-between gap-x-4 pb-4 sm:pl-[34px]">
      {logo ? (
        // biome-ignore lint/performance/noImgElement: a picture of the business's own, already small
        <img src={logo} alt={seller.name} className="h-9 w-auto" />
      ) : (
        <b className="font-serif text-[19px]/6 font-semibold">{seller.name}</b>
      )}
      <ContactLine parts={[...seller.address, seller.phone]} />
    </div>
  );
}
