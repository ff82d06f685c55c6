import type { PrintedOrder } from '@/core/offer/order';
import { packingOf } from '@/core/offer/packing';

/** What packing and preparing needs of an order: to whom it goes, what they wrote and answered, and where they came from. */
export function OrderDetails({ reference, order }: { reference: string; order: PrintedOrder }) {
  return (
    <div className="mt-5 border-t border-rule pt-3 text-[13.5px]/5">
      <p>
        <span className="text-soft">Order</span> {reference}
      </p>
      {packingOf(order).map(({ label, text, fileId }, line) => (
        <p key={`${line} ${label}`} className="whitespace-pre-line">
          <span className="text-soft">{label}:</span>{' '}
          {fileId ? (
            <a className="link" href={`/files/own/${fileId}`} target="_blank" rel="noreferrer">
              {text}
            </a>
          ) : (
            <span className="private">{text}</span>
          )}
        </p>
      ))}
      {Object.entries(order.passed).map(([name, value]) => (
        <p key={name}>
          <span className="text-soft">{name}:</span> {value}
        </p>
      ))}
    </div>
  );
}
