import type { ReactNode } from 'react';
import { pageActor } from '@/app/session';
import { voucherList } from '@/flows/voucher/vouchers';
import { Empty } from '@/ui/kit/empty';
import { ListAndSheet } from '@/ui/list/list-and-sheet';
import { RecordList } from '@/ui/records/record-list';
import { RecordsTabs } from '../records-tabs';
import { voucherRow } from './voucher-row';

export default async function VouchersLayout({ children }: { children: ReactNode }) {
  const list = await voucherList(await pageActor(), { words: '', after: '' });
  return (
    <>
      <RecordsTabs here="Vouchers" />
      <ListAndSheet
        label="Vouchers"
        list={
          <RecordList
            first={{
              rows: list.rows.map((row) => voucherRow(row, list)),
              next: list.next ? { key: '', id: list.next } : null,
            }}
            path="/api/vouchers"
            placeholder="Code, name or address"
            none={
              <Empty words="No gift voucher yet. They are sold through a link, a page or a button: tick under Afterwards that what is paid for are gift vouchers." />
            }
          />
        }
      >
        {children}
      </ListAndSheet>
    </>
  );
}
