'use client';
import { useState } from 'react';
import { type Customer, newCustomer } from '@/core/customer/customer';
import { Button } from '../kit/button';
import { Field } from '../kit/field';
import { Form, useTyped } from '../kit/form';
import { Segment } from '../kit/segment';
import { send } from '../kit/send';
import { CustomerMore } from './customer-more';
import { customerTyped, typedCustomer } from './customer-typed';
import { CustomersAlike } from './customers-alike';

const rules = () => import('@/input/customer-input').then(({ CustomerInput }) => CustomerInput);
const OPEN = ['name', 'email', 'phone'];

/**
 * A customer's whole record. With `short` only name and the ways to reach them stand open; the rest folds out.
 *
 * @param customer who is changed, or null where somebody is added
 */
export function CustomerForm({
  customer,
  start,
  home,
  short = false,
  onDone,
  onLeave,
}: {
  customer: Customer | null;
  start?: Omit<Customer, 'id'>;
  home: string;
  short?: boolean;
  onDone: (customer: Customer) => void;
  onLeave: () => void;
}) {
  const [opened, setOpened] = useState(!short);
  const form = useTyped({
    start: typedCustomer(customer ?? start ?? newCustomer('')),
    keepAs: customer || !short ? `customer:${customer?.id ?? 'new'}` : '',
    shape: rules,
    body: customerTyped,
    send: (body) =>
      customer
        ? send<Customer>('PUT', `/api/customers/${customer.id}`, body)
        : send<Customer>('POST', '/api/customers', body),
    done: onDone,
  });
  const { values, set, at, troubles } = form;
  // What is wrong is never folded away.
  const folded = !opened && Object.keys(troubles).every((field) => OPEN.includes(field) || field === 'root');
  return (
    <Form
      of={form}
      legend="The customer"
      actions={
        <div className="flex justify-end gap-3">
          <Button
            onClick={() => {
              form.leave();
              onLeave();
            }}
          >
            Cancel
          </Button>
          <Button type="submit" look="go" busy={form.busy} busyWords="Saving">
            {customer ? 'Save changes' : 'Add customer'}
          </Button>
        </div>
      }
    >
      <Segment
        hidden
        label="Who they are"
        value={values.kind}
        choices={[
          ['person', 'A person'],
          ['company', 'A company'],
        ]}
        onChoose={(kind) => set({ kind })}
      />
      <Field
        label="Name"
        value={values.name}
        onChange={(event) => set({ name: event.target.value })}
        error={at('name')}
        autoFocus
        maxLength={160}
      />
      {customer ? null : <CustomersAlike name={values.name} email={values.email} onTaken={onDone} />}
      <Field
        label="E-mail address"
        type="email"
        value={values.email}
        onChange={(event) => set({ email: event.target.value })}
        error={at('email')}
        hint="The invoice and the receipt go there."
      />
      <Field
        label="Phone"
        type="tel"
        value={values.phone}
        onChange={(event) => set({ phone: event.target.value })}
        error={at('phone')}
        maxLength={40}
      />
      {folded ? (
        <Button look="link" opens className="justify-self-start" onClick={() => setOpened(true)}>
          Address, language, terms and more
        </Button>
      ) : (
        <CustomerMore of={form} home={home} />
      )}
    </Form>
  );
}
