/** Why everything here is closed. Nothing for an owner. @param may whether the person changes settings */
export function OwnersOnly({ may }: { may: boolean }) {
  return may ? null : <p className="small mb-3 text-soft">Only an owner changes what stands here.</p>;
}
