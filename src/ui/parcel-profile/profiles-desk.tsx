'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useState } from 'react';
import { money } from '@/core/money/money';
import { moneyText } from '@/core/money/money-text';
import { type Measures, sizeText, weightText } from '@/core/parcel/measure';
import type { DeliverSettings } from '@/core/parcel/notice';
import { openRule, type ParcelProfile, type ParcelRule, ruleWords } from '@/core/parcel/profile';
import { countryName } from '@/core/place/address';
import { Button } from '../kit/button';
import { OverviewPart } from '../kit/overview';
import { usePress } from '../kit/press';
import { TopUpDialog } from '../pack/top-up-dialog';
import { DeliveringForm } from './delivering-form';
import type { NamedItem } from './items-field';
import { ProfileDialog } from './profile-dialog';
import { RuleDialog } from './rule-dialog';
import { TryRules } from './try-rules';

export type MoveShown = {
  readonly id: string;
  readonly what: string;
  /** Whom its parcel is for, and where that stands; empty for money put there, and for who is forgotten. */
  readonly whom: string;
  readonly href: string;
  readonly when: string;
  readonly by: string;
  readonly minor: number;
  readonly open: boolean;
};

/** How things are packed, by which rules, and what there is at the carrier. */
export function ProfilesDesk({
  profiles,
  rules: kept,
  items,
  wanted,
  services,
  settings,
  balance,
  moves,
  measures,
  home,
  currency,
  locale,
  may,
}: {
  profiles: readonly ParcelProfile[];
  rules: readonly ParcelRule[];
  items: readonly NamedItem[];
  /** A rule to be made: for what somebody chose by hand; null where the page is opened as such. */
  wanted: { readonly profileId: string; readonly itemIds: readonly string[] } | null;
  /** Null where the carrier does not answer. */
  services: readonly { readonly code: string; readonly name: string }[] | null;
  settings: DeliverSettings;
  balance: number;
  moves: readonly MoveShown[];
  measures: Measures;
  home: string;
  currency: string;
  locale: string;
  may: { readonly change: boolean; readonly topUp: boolean };
}) {
  const [profile, setProfile] = useState<ParcelProfile | 'new' | null>(null);
  const [rule, setRule] = useState<ParcelRule | null>(() =>
    wanted && may.change && profiles.some(({ id }) => id === wanted.profileId)
      ? { ...openRule(crypto.randomUUID(), wanted.profileId), itemIds: wanted.itemIds }
      : null,
  );
  const [known, setKnown] = useState(items);
  const [toppingUp, setToppingUp] = useState(false);
  const { busy, pressed } = usePress();
  const sum = (minor: number) => moneyText(money(BigInt(minor), currency), locale);
  const nameOf = (id: string) => profiles.find((one) => one.id === id)?.name ?? 'a profile that is gone';
  const serviceOf = (code: string) => services?.find((one) => one.code === code)?.name ?? code;
  const saveRules = (rules: readonly ParcelRule[]) =>
    void pressed('/api/parcel-rules', { rules }, 'The rules are saved', 'PUT');
  const say = {
    country: (code: string) => countryName(code, locale),
    weight: (grams: number) => weightText(grams, measures, locale),
    sum,
    item: (id: string) => known.find((one) => one.id === id)?.name ?? 'an item',
  };
  const move = (at: number, by: number) => {
    const rules = [...kept];
    const [one] = rules.splice(at, 1);
    if (!one) return;
    rules.splice(at + by, 0, one);
    saveRules(rules);
  };
  return (
    <div className="mx-auto grid max-w-[1440px] gap-x-12 gap-y-8 px-4 pb-12 pt-2 sm:px-7 lg:grid-cols-[minmax(0,1fr)_minmax(0,380px)]">
      <div className="grid content-start gap-8">
        <OverviewPart
          name="Parcel profiles"
          side={
            may.change ? (
              <Button look="link" onClick={() => setProfile('new')}>
                Add a profile
              </Button>
            ) : null
          }
        >
          {profiles.length === 0 ? (
            <p className="document py-3 text-soft">
              None yet. A profile is a box as you pack it again and again: its size, what it weighs and costs, and how
              it goes.
            </p>
          ) : null}
          <ul>
            {profiles.map((one) => (
              <li
                key={one.id}
                className="grid min-h-[44px] grid-cols-[minmax(0,1fr)_auto] items-center gap-x-4 border-b border-rule py-1.5"
              >
                <button
                  type="button"
                  className="min-w-0 text-left"
                  disabled={!may.change}
                  onClick={() => setProfile(one)}
                >
                  <span className="name block">{one.name}</span>
                  <span className="block text-[12.5px]/[17px] text-soft">
                    {sizeText(one, measures, locale)}, {weightText(one.ownGrams, measures, locale)}
                    {one.mostGrams > 0 ? `, up to ${weightText(one.mostGrams, measures, locale)}` : ''} ·{' '}
                    {one.service ? serviceOf(one.service) : 'the cheapest service'}
                    {one.insuring.kind === 'always'
                      ? ', insured'
                      : one.insuring.kind === 'from'
                        ? `, insured from ${sum(one.insuring.minor)} on`
                        : ''}
                    {one.signature ? ', with signature' : ''}
                  </span>
                </button>
                <span className="flex items-baseline gap-4">
                  <span className="font-serif text-[15.5px]">{sum(one.packagingMinor)}</span>
                  {may.change ? (
                    <Button
                      look="small-link"
                      disabled={busy}
                      aria-label={`Remove ${one.name}`}
                      onClick={() =>
                        void pressed(`/api/parcel-profiles/${one.id}`, {}, 'The profile is removed', 'DELETE')
                      }
                    >
                      Remove
                    </Button>
                  ) : null}
                </span>
              </li>
            ))}
          </ul>
        </OverviewPart>
        <OverviewPart
          name="Rules"
          side={
            may.change && profiles.length > 0 ? (
              <Button look="link" onClick={() => setRule(openRule(crypto.randomUUID(), ''))}>
                Add a rule
              </Button>
            ) : null
          }
        >
          <p className="small pt-2 text-soft">
            The first that takes a parcel chooses its profile. What no rule knows is chosen by hand.
          </p>
          <ol>
            {kept.map((one, at) => (
              <li
                key={one.id}
                className="grid min-h-[38px] grid-cols-[26px_minmax(0,1fr)_auto] items-center gap-x-3 border-b border-rule py-1"
              >
                <span className="text-soft">{at + 1}</span>
                <button
                  type="button"
                  className="document min-w-0 text-left"
                  disabled={!may.change}
                  onClick={() => setRule(one)}
                >
                  {ruleWords(one, say)}: <b className="font-semibold">{nameOf(one.profileId)}</b>
                </button>
                {may.change ? (
                  <span className="flex gap-3">
                    <Button
                      look="small-link"
                      disabled={busy || at === 0}
                      aria-label={`Rule ${at + 1} earlier`}
                      onClick={() => move(at, -1)}
                    >
                      Earlier
                    </Button>
                    <Button
                      look="small-link"
                      disabled={busy || at === kept.length - 1}
                      aria-label={`Rule ${at + 1} later`}
                      onClick={() => move(at, 1)}
                    >
                      Later
                    </Button>
                    <Button
                      look="small-link"
                      disabled={busy}
                      aria-label={`Remove rule ${at + 1}`}
                      onClick={() => saveRules(kept.filter(({ id }) => id !== one.id))}
                    >
                      Remove
                    </Button>
                  </span>
                ) : null}
              </li>
            ))}
          </ol>
        </OverviewPart>
        {kept.length > 0 ? (
          <OverviewPart name="Try them out">
            <TryRules rules={kept} home={home} measures={measures} />
          </OverviewPart>
        ) : null}
      </div>
      <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
        <OverviewPart
          name="At the carrier"
          side={
            may.topUp ? (
              <Button look="link" onClick={() => setToppingUp(true)}>
                Top up
              </Button>
            ) : null
          }
        >
          <p className="flex items-baseline gap-4 pt-2">
            <span className="private flex-1 font-serif text-[24px]/8 font-medium">{sum(balance)}</span>
            <Link className="link" href={'/deliver/carrier' as Route}>
              Monthly statements
            </Link>
          </p>
          {services === null ? <p className="small text-ochre">The carrier does not answer just now.</p> : null}
          <ul>
            {moves.map((one) => (
              <li key={one.id} className="flex items-baseline gap-3 border-b border-rule py-1.5">
                <span className="min-w-0 flex-1 truncate">
                  {one.href ? (
                    <Link href={one.href as Route} className="document hover:underline">
                      {one.what}
                      {one.whom ? <span className="private"> for {one.whom}</span> : null}
                    </Link>
                  ) : (
                    <span className="document">{one.what}</span>
                  )}{' '}
                  <span className="small text-soft">{one.when}</span>
                </span>
                <span
                  className={`private font-serif text-[15px] ${one.open ? 'text-soft' : one.minor > 0 ? 'text-leaf' : ''}`}
                >
                  {one.open ? 'asked for, ' : ''}
                  {sum(one.minor)}
                </span>
              </li>
            ))}
          </ul>
        </OverviewPart>
        <OverviewPart name="How you deliver">
          <DeliveringForm settings={settings} mayChange={may.change} />
        </OverviewPart>
      </div>
      {profile ? (
        <ProfileDialog
          profile={profile === 'new' ? null : profile}
          services={services ?? []}
          measures={measures}
          onClose={() => setProfile(null)}
        />
      ) : null}
      {rule ? (
        <RuleDialog
          rule={rule}
          profiles={profiles}
          items={known}
          measures={measures}
          onClose={() => setRule(null)}
          onRule={(next, named) => {
            setKnown([...known.filter(({ id }) => !named.some((one) => one.id === id)), ...named]);
            setRule(null);
            saveRules(
              kept.some(({ id }) => id === next.id)
                ? kept.map((one) => (one.id === next.id ? next : one))
                : [...kept, next],
            );
          }}
        />
      ) : null}
      {toppingUp ? <TopUpDialog balance={balance} onClose={() => setToppingUp(false)} /> : null}
    </div>
  );
}
