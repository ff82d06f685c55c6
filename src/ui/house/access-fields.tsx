import { Field } from '../kit/field';

type Given = { readonly value: string; readonly error: string | undefined; readonly onType: (text: string) => void };

/** The address with which somebody signs in. */
export const AddressField = ({ value, error, onType }: Given) => (
  <Field
    label="E-mail address"
    type="email"
    name="email"
    autoComplete="username"
    value={value}
    error={error}
    onChange={(event) => onType(event.target.value)}
  />
);

/** A password that is chosen now. */
export const NewPasswordField = ({ label = 'New password', value, error, onType }: Given & { label?: string }) => (
  <Field
    label={label}
    type="password"
    name="fresh"
    autoComplete="new-password"
    hint="At least ten signs. Four or five words that do not belong together are good."
    value={value}
    error={error}
    onChange={(event) => onType(event.target.value)}
  />
);
