import { type Item, type ItemOption, priceIn } from '../item/item';
import { newLine, type PaperLine } from '../paper/paper';

/** A line over one of an item (in one of its options), at its price in a currency; empty where it has none there. */
export const lineOfItem = (id: string, item: Item, option: ItemOption | null, currency: string): PaperLine =>
  newLine(id, item.unit, {
    what: option ? `${item.name}, ${option.name}` : item.name,
    price: priceIn(item, option, currency),
    taxClass: item.taxClass,
    itemId: item.id,
    optionId: option?.id ?? null,
    ...(option?.code || item.code ? { code: option?.code || item.code } : {}),
    // Goods may be posted or collected: that is the person's to say.
    ...(item.kind === 'goods' ? {} : { handed: item.kind }),
    ...(item.description ? { note: item.description.slice(0, 1000) } : {}),
  });
