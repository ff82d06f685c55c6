/** A heading between the parts of the profile. */
export const Heading = ({ children }: { children: string }) => (
  <h2 className="title-section mt-2 border-b border-ink pb-1">{children}</h2>
);
