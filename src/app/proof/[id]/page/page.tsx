import type { Metadata } from 'next';
import { orNotFound } from '@/app/found';
import { pageActor } from '@/app/session';
import { cardFieldsUrl } from '@/flows/invoice/payer-page';
import { proofPage } from '@/flows/invoice/proof';
import { PayerInvoice } from '@/ui/payer/payer-invoice';

export const metadata: Metadata = { title: 'Proof' };

export default async function ProofPage({ params }: { params: Promise<{ id: string }> }) {
  const actor = await pageActor();
  const { id } = await params;
  const { invoice, dueMinor } = await orNotFound(id, proofPage(actor, id));
  return (
    <PayerInvoice
      invoice={invoice}
      stage="sent"
      balance={{ paidMinor: 0, creditedMinor: 0, dueMinor }}
      receipts={[]}
      files={invoice.files.map((file) => ({
        id: file.id,
        name: file.name,
        href: `/files/own/${file.id}`,
        approve: file.approve,
        decided: '',
        waits: file.approve,
      }))}
      token={null}
      logo={invoice.logoId ? `/files/own/${invoice.logoId}` : null}
      pay={{ kind: 'proof', fieldsUrl: cardFieldsUrl() }}
    />
  );
}
