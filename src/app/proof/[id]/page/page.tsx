import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { jsonMinor } from '@/core/money/money';
import { approveFirstWords, waitsForWords } from '@/core/words/approval-wording';
import { transferCode } from '@/core/words/invoice-wording';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { proofPage } from '@/flows/invoice/proof';
import { PayerInvoice } from '@/ui/payer/payer-invoice';

export const metadata: Metadata = { title: 'Proof' };

export default async function ProofPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { invoice, dueMinor, payable, takes } = await orNotFound(id, proofPage(actor, id));
  return (
    <PayerInvoice
      invoice={invoice}
      stage="sent"
      balance={{ paidMinor: 0, creditedMinor: 0, refundedMinor: 0, dueMinor }}
      receipts={[]}
      files={invoice.files.map((file) => ({
        id: file.id,
        name: file.name,
        href: `/files/own/${file.id}`,
        approve: file.approve,
        decided: [],
        waits: file.approve,
        waitsFor: waitsForWords(
          (file.approvers ?? []).map(({ name }) => name),
          invoice.locale,
        ),
        mine: false,
      }))}
      token={null}
      logo={invoice.logoId ? `/files/own/${invoice.logoId}` : null}
      code={transferCode(invoice, dueMinor) ? `/proof/${id}/pay-code` : null}
      pay={{
        kind: 'proof',
        fieldsUrl: cardFieldsUrl({ take: takes ?? 'card', locale: invoice.locale }),
        card: takes !== null,
        terms: {
          house: invoice.seller.name,
          currency: invoice.currency,
          locale: invoice.locale,
          dueMinor: jsonMinor(payable.due),
          leastMinor: jsonMinor(payable.least),
          askedMinor: null,
          smallestMinor: jsonMinor(payable.smallest),
          parts: invoice.ways.parts,
          tip: invoice.ways.tip,
          terms: invoice.terms && { name: invoice.terms.name, text: invoice.terms.text },
          approveFirst: approveFirstWords(
            invoice.files
              .filter(({ approve }) => approve)
              .map(({ approvers = [] }) => ({
                mine: approvers.length === 0,
                names: approvers.map(({ name }) => name),
              })),
            invoice.locale,
          ),
        },
      }}
    />
  );
}
