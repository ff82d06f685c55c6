'use client';
import { ChevronDown, Search } from 'lucide-react';
import Link from 'next/link';
import { usePathname } from 'next/navigation';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './kit/button';
import type { PLACES } from './places';

/** The letterhead over every screen: whose desk this is, the places, and what can be done from anywhere. */
export function Band({
  house,
  person,
  night,
  covered,
  mayAsk,
  onFind,
  onAsk,
  onCover,
  onNight,
  onProfile,
  onYou,
  onSignOut,
  menu,
  onMenu,
  news,
  places,
  desks,
  onDesk,
  onAnother,
  onPeople,
}: {
  house: string;
  person: string;
  night: boolean;
  covered: boolean;
  mayAsk: boolean;
  onFind: () => void;
  onAsk: () => void;
  onCover: () => void;
  onNight: () => void;
  /** Null where it is not for them, as with people. */
  onProfile: (() => void) | null;
  onYou: () => void;
  onSignOut: () => void;
  /** Whether the menu behind the business's name is open. */
  menu: boolean;
  onMenu: (open: boolean) => void;
  news: ReactNode;
  places: readonly (typeof PLACES)[number][];
  /** Where else this person works. */
  desks: readonly { readonly businessId: string; readonly business: string }[];
  onDesk: (businessId: string) => void;
  onAnother: () => void;
  onPeople: (() => void) | null;
}) {
  const path = usePathname();
  return (
    <header className="relative flex h-[52px] items-center gap-4 px-4 after:pointer-events-none after:absolute after:inset-x-0 after:bottom-0 after:h-[5px] after:border-b after:border-t-2 after:border-ink sm:px-7">
      <DropdownMenu.Root open={menu} onOpenChange={onMenu}>
        <DropdownMenu.Trigger className="flex min-w-0 items-center gap-2 pb-1 font-serif text-[18px]/6 font-semibold sm:w-[216px]">
          <span className="truncate">{house}</span>
          <ChevronDown size={15} strokeWidth={1.8} className="flex-none" aria-hidden="true" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="start" sideOffset={6}>
            <DropdownMenu.Label className="small px-2.5 py-1 text-soft">Signed in as {person}</DropdownMenu.Label>
            {desks.map(({ businessId, business }) => (
              <DropdownMenu.Item key={businessId} className="menu-item" onSelect={() => onDesk(businessId)}>
                Go over to {business}
              </DropdownMenu.Item>
            ))}
            {desks.length > 0 ? <DropdownMenu.Separator className="my-1 border-t border-rule" /> : null}
            {onProfile ? (
              <DropdownMenu.Item className="menu-item" onSelect={onProfile}>
                The business’s profile
              </DropdownMenu.Item>
            ) : null}
            {onPeople ? (
              <DropdownMenu.Item className="menu-item" onSelect={onPeople}>
                People
              </DropdownMenu.Item>
            ) : null}
            <DropdownMenu.Item className="menu-item" onSelect={onYou}>
              You: dates, news, signing in
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" onSelect={onAnother}>
              Begin another business
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" onSelect={onNight}>
              {night ? 'Day setting' : 'Night setting'}
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" onSelect={onSignOut}>
              Sign out
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <nav
        aria-label="Places"
        className="fixed inset-x-0 bottom-0 z-40 flex h-[54px] justify-around border-t-2 border-ink bg-desk sm:static sm:bg-transparent sm:h-auto sm:flex-1 sm:justify-start sm:gap-[26px] sm:border-0"
      >
        {places.map((place) => {
          const here = path.startsWith(`/${place.href.split('/')[1]}`);
          return (
            <Link
              key={place.name}
              href={place.href}
              aria-current={here ? 'page' : undefined}
              className={`relative px-2 pt-3.5 text-[14.5px]/6 sm:h-[47px] sm:px-0 sm:pt-3 ${here ? 'font-[650] text-ink' : 'font-medium text-soft hover:text-ink'}`}
            >
              {place.name}
              {here ? (
                <span
                  className="petal-mark absolute -top-2 left-1/2 -ml-1.5 h-[17px] w-3 sm:-bottom-2 sm:top-auto sm:z-10"
                  aria-hidden="true"
                />
              ) : null}
            </Link>
          );
        })}
      </nav>
      <button
        type="button"
        onClick={onFind}
        className="ml-auto hidden h-[30px] w-[212px] items-center gap-2 border-b border-edge pb-px text-soft md:flex"
      >
        <Search size={16} strokeWidth={1.5} aria-hidden="true" />
        Find or do
        <kbd className="key ml-auto">/</kbd>
      </button>
      <span className="ml-auto md:ml-0">{news}</span>
      <Button
        onClick={onCover}
        aria-pressed={covered}
        look="link"
        className="hidden sm:inline"
        title="Hide names and sums"
      >
        {covered ? 'Uncover' : 'Cover'}
      </Button>
      <Button onClick={onAsk} disabled={!mayAsk} look="ink" size="low">
        Ask for money
      </Button>
    </header>
  );
}
