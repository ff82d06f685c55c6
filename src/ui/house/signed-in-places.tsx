'use client';
import { Button } from '../kit/button';
import { usePress } from '../kit/press';

type Place = {
  readonly key: string;
  readonly program: string;
  readonly address: string;
  readonly since: string;
  readonly used: string;
  readonly here: boolean;
};

/** Where somebody is signed in: which program, from which network address, when it was last used. */
export function SignedInPlaces({ places }: { places: readonly Place[] }) {
  const { busy, pressed } = usePress();
  const end = (key: string, done: string) => void pressed('/api/places-signed-in', { key }, done, 'DELETE');
  return (
    <>
      <ul>
        {places.map(({ key, program, address, since, used, here }) => (
          <li key={key} className="flex items-baseline gap-3 border-b border-rule py-2">
            <div className="min-w-0 flex-1">
              <span className="font-serif text-[15.5px]/6 font-medium">{program}</span>
              {here ? <span className="font-semibold text-leaf"> here</span> : null}
              <span className="small block text-soft">
                {address ? <span className="private">from {address}, </span> : null}
                since {since}, last used {used}
              </span>
            </div>
            {here ? null : (
              <Button look="link" disabled={busy} onClick={() => end(key, 'That session is ended')}>
                Sign out there
              </Button>
            )}
          </li>
        ))}
      </ul>
      {places.length > 1 ? (
        <Button className="mt-3" disabled={busy} onClick={() => end('', 'You are signed out everywhere else')}>
          Sign out everywhere else
        </Button>
      ) : null}
    </>
  );
}
