'use client';
import {
  type CheckState,
  isOpen,
  KEPT_DAYS,
  type Member,
  neededSides,
  SIDES,
  type Side,
} from '@/core/identity/identity';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';
import { MembersForm } from './members-form';
import { PictureSlot } from './picture-slot';

/** Who stands behind the business: told, photographed, sent to the office, and what it said. Times are written already. */
export function IdentityDesk({
  me,
  country,
  members,
  pictures,
  missing,
  state,
  since,
  reason,
  countries,
}: {
  me: string;
  country: string;
  members: readonly Member[];
  pictures: readonly { readonly memberId: string; readonly side: Side }[];
  missing: readonly string[];
  state: CheckState | null;
  since: string;
  /** Why something is asked anew, or was refused. */
  reason: string;
  countries: readonly { readonly code: string; readonly name: string }[];
}) {
  const { busy, pressed } = usePress();
  const has = (memberId: string, side: Side) => pictures.some((one) => one.memberId === memberId && one.side === side);
  if (!isOpen(state))
    return (
      <>
        <p className="document" role="status">
          {state === 'accepted'
            ? `It is known since ${since}: money is paid out.`
            : `The office is looking since ${since}. It takes a day or two, and a mail says what came of it. Until then what is ready to be paid out waits.`}
        </p>
        {members.length > 0 ? (
          <ul className="mt-5 border-t border-ink">
            {members.map(({ id, name, position, share }) => (
              <li key={id} className="border-b border-rule py-2">
                <span className="name private">{name}</span>
                <span className="small block text-soft">
                  {[position, share > 0 ? `holds ${share} percent` : ''].filter(Boolean).join(', ')}
                </span>
              </li>
            ))}
          </ul>
        ) : null}
      </>
    );
  return (
    <>
      {reason ? (
        <p className={`mb-4 px-3 py-2.5 ${state === 'refused' ? 'bg-brick-tint' : 'bg-ochre-tint'}`} role="status">
          <b className="font-semibold">{state === 'refused' ? 'It was refused.' : 'Something has to be shown anew.'}</b>{' '}
          {reason}
        </p>
      ) : (
        <p className="document mb-5">
          Before money is paid out it has to be known who gets it. What you write and photograph here goes to the office
          that looks at it, and to nobody else; pictures are kept locked, and gone {KEPT_DAYS} days after it is decided.
        </p>
      )}
      <MembersForm me={me} country={country} members={members} countries={countries} />
      {members.length > 0 ? (
        <section className="mt-8" aria-label="Pictures">
          <h2 className="title-section border-b border-ink pb-1.5">Pictures</h2>
          {members.map((member) => (
            <div key={member.id} className="mt-3">
              <h3 className="name private">{member.name || 'Nobody yet'}</h3>
              <ul>
                {SIDES.filter((side) => side !== 'live' || member.acts).map((side) => (
                  <PictureSlot
                    key={side}
                    memberId={member.id}
                    member={member.name}
                    side={side}
                    isThere={has(member.id, side)}
                    isNeeded={neededSides(member).includes(side)}
                  />
                ))}
              </ul>
            </div>
          ))}
          <div className="mt-6">
            {missing.length > 0 ? (
              <div className="small mb-3 text-soft">
                Still missing:
                <ul className="list-disc pl-5">
                  {missing.map((words) => (
                    <li key={words}>{words}</li>
                  ))}
                </ul>
              </div>
            ) : null}
            <Button
              look="go"
              busy={busy}
              busyWords="Sending it"
              disabled={missing.length > 0}
              onClick={() => void pressed('/api/identity/send', {}, 'It is on its way to the office')}
            >
              Send it to the office
            </Button>
          </div>
        </section>
      ) : null}
    </>
  );
}
