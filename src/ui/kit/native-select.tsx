import type { ComponentProps } from 'react';

/**
 * A choice from a list for customers: the closed list is ours, the open one the device's own, which works before any script does and
 * is what a phone's owner knows. At the desk it is `Select`.
 */
export function NativeSelect({ className = '', ...select }: ComponentProps<'select'>) {
  return <select className={`input own-list ${className}`.trim()} {...select} />;
}
