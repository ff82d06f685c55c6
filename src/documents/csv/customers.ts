import type { Customer } from '@/core/customer/customer';
import { IMPORT_FIELDS } from '@/core/customer/import-rows';
import { csvText } from './write';

const { firstName: _first, lastName: _last, ...FIELDS } = IMPORT_FIELDS;
type Field = keyof typeof FIELDS;

const cells = (customer: Customer): Record<Field, string> => {
  const { billing } = customer;
  const company = customer.kind === 'company';
  return {
    name: company ? '' : customer.name,
    company: company ? customer.name : '',
    email: customer.email,
    copies: customer.copies.join('; '),
    phone: customer.phone,
    street: billing.lines[0] ?? '',
    street2: billing.lines.slice(1).join(', '),
    city: billing.city,
    region: billing.region,
    postalCode: billing.postalCode,
    country: billing.country,
    taxNumber: customer.taxNumber,
    language: customer.language,
    currency: customer.currency,
    groups: customer.groups.join('; '),
    note: customer.note,
  };
};

/** Customers as CSV, in the columns that importing knows by their headings. */
export const customersCsv = (customers: readonly Customer[]): string =>
  csvText(
    Object.values(FIELDS),
    customers.map((customer) => {
      const row = cells(customer);
      return (Object.keys(FIELDS) as Field[]).map((field) => row[field]);
    }),
  );
