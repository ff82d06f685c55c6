'use client';
import { Ellipsis } from 'lucide-react';
import type { Route } from 'next';
import { useRouter } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import type { Customer } from '@/core/customer/customer';
import type { StartFrom } from './use-sent-paper';

type Named = { readonly id: string; readonly name: string };

/** What else can be done with a draft: templates, another like it, repeating it. */
export function DraftMenu({
  id,
  customer,
  templates,
  recurring,
  hasFiles,
  flush,
  onName,
  onAgain,
  onFromNextOn,
}: {
  id: string;
  customer: Customer | null;
  templates: readonly Named[];
  recurring: readonly Named[];
  hasFiles: boolean;
  /** Keeps what was typed last; false where that failed. */
  flush: () => Promise<boolean>;
  onName: () => void;
  onAgain: (from: StartFrom) => void;
  onFromNextOn: (recurringId: string) => void;
}) {
  const router = useRouter();
  const goKept = async (path: string) => {
    if (await flush()) router.push(path as Route);
  };
  const item = (words: string, onSelect: () => void, key = words) => (
    <DropdownMenu.Item key={key} className="menu-item" onSelect={onSelect}>
      {words}
    </DropdownMenu.Item>
  );
  const forCustomer = customer ? { customerId: customer.id } : {};
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="btn !px-2.5" aria-label="More to do with this draft">
        <Ellipsis size={18} strokeWidth={1.6} aria-hidden="true" />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
          {item('Save as a template', onName)}
          {templates.map((template) =>
            item(
              `Start from “${template.name}”`,
              () => onAgain({ templateId: template.id, ...forCustomer }),
              template.id,
            ),
          )}
          {customer
            ? item(`Same as last time for ${customer.name}`, () => onAgain({ ...forCustomer, asLast: true }))
            : null}
          {item('Copy', () => onAgain({ invoiceId: id }))}
          {hasFiles ? item('Copy with its files', () => onAgain({ invoiceId: id, withFiles: true })) : null}
          {customer ? item('Make it recurring', () => void goKept(`/ask/recurring/new?from=${id}`)) : null}
          {recurring.map((repeat) =>
            item(`Let “${repeat.name}” say this from the next on`, () => onFromNextOn(repeat.id), repeat.id),
          )}
          {item('The business’s profile', () => router.push('/settings/profile' as Route))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
