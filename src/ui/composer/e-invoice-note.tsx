'use client';
import { useMemo } from 'react';
import type { Customer } from '@/core/customer/customer';
import type { CalendarDate } from '@/core/dates/calendar-date';
import { eInvoiceOf } from '@/core/einvoice/of-invoice';
import { eInvoiceProblems } from '@/core/einvoice/rules';
import { isEInvoiceUsual } from '@/core/einvoice/where';
import { printedInvoice, type Seller } from '@/core/invoice/printed';
import type { PaperReading } from '@/core/invoice/read-paper';
import type { Paper } from '@/core/paper/paper';

/** Before sending, between businesses that use them: whether an e-invoice goes along, or what it lacks. */
export function EInvoiceNote({
  paper,
  reading,
  seller,
  customer,
  hasAccount,
  number,
  issuedOn,
}: {
  paper: Paper;
  reading: PaperReading;
  seller: Seller;
  customer: Customer | null;
  hasAccount: boolean;
  number: string;
  issuedOn: CalendarDate;
}) {
  const problems = useMemo(() => {
    const payer = {
      name: customer?.name ?? '',
      address: [],
      email: customer?.email ?? '',
      taxNumber: customer?.taxNumber ?? '',
      country: customer?.billing.country ?? '',
      ...(customer ? { place: customer.billing } : {}),
    };
    if (!isEInvoiceUsual(seller.country ?? '', payer) || paper.elsewhere) return null;
    // Which account it is does not matter here, only whether there is one.
    const bank = { holder: '', account: hasAccount ? '1' : '', bankCode: '', bank: '' };
    const heading = { number, locale: 'en', issuedOn, seller, payer, terms: null, bank, logoId: null, accent: '' };
    return eInvoiceProblems(eInvoiceOf(printedInvoice(paper, reading, heading)));
  }, [paper, reading, seller, customer, hasAccount, number, issuedOn]);
  if (!problems) return null;
  if (problems.length === 0) return <p className="small text-soft">The e-invoice goes along inside the PDF.</p>;
  return (
    <div className="small border-l-2 border-ochre pl-2.5" role="status">
      <p>It goes out without an e-invoice, which lacks something:</p>
      <ul className="list-disc pl-4">
        {problems.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
    </div>
  );
}
