import { registerDecorator } from 'class-validator';

const TOKEN = /^tok_[0-9a-f]{24}$/;

/**
 * The processor's token of a card, by its shape: whoever sends a card number instead is turned away before it goes any further.
 *
 * @param none whether it may be empty, where no card is needed
 */
export const CardToken = (none?: 'or none') => (target: object, propertyName: string) =>
  registerDecorator({
    name: 'cardToken',
    target: target.constructor,
    propertyName,
    validator: {
      validate: (value: unknown) => (none && value === '') || (typeof value === 'string' && TOKEN.test(value)),
      defaultMessage: () => 'Fill in the card again.',
    },
  });
