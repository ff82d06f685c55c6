import type { ReactNode } from 'react';

/** A label joined to its figure by dots that are drawn, not typed. */
export function Leader({
  label,
  children,
  className = '',
}: {
  label: ReactNode;
  children: ReactNode;
  className?: string;
}) {
  return (
    <div className={`leader ${className}`}>
      <span>{label}</span>
      <span className="dots" aria-hidden="true" />
      <span className="whitespace-nowrap">{children}</span>
    </div>
  );
}
