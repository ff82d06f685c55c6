import type { Customer } from '@/core/customer/customer';

/** A customer while the record is written: lists as one line each. */
export type CustomerTyped = Omit<Customer, 'id' | 'copies' | 'groups'> & {
  readonly copies: string;
  readonly groups: string;
};

export function typedCustomer(customer: Omit<Customer, 'id'>): CustomerTyped {
  const { id: _, copies, groups, ...rest } = { id: '', ...customer };
  return { ...rest, copies: copies.join(', '), groups: groups.join(', ') };
}

const listed = (text: string): string[] =>
  text
    .split(/[,;\n]/)
    .map((part) => part.trim())
    .filter(Boolean);

export const customerTyped = ({ copies, groups, ...rest }: CustomerTyped): Omit<Customer, 'id'> => ({
  ...rest,
  copies: listed(copies),
  groups: listed(groups),
});
