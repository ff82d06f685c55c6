'use client';
import type { Route } from 'next';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { asFront, type House } from '@/core/front/front';
import type { Placement } from '@/core/offer/offer';
import { Button } from '../kit/button';
import { Field, FieldError, TextField } from '../kit/field';
import { say } from '../kit/toasts';
import { AfterSection } from './after-section';
import { AskedSection } from './asked-section';
import { ButtonSection } from './button-section';
import { DeliverySection } from './delivery-section';
import { FrontSection } from './front-section';
import { LimitsSection } from './limits-section';
import { LinkSection } from './link-section';
import { OfferProof } from './offer-proof';
import { OfferWhat } from './offer-what';
import { PLACEMENT_WORDS } from './placement-words';
import { PricesSection } from './prices-section';
import { RepeatSection } from './repeat-section';
import { ShareSection } from './share-section';
import { type OfferDraft, useOffer } from './use-offer';

/** An offer while it is composed: what is asked for first, the rest folds out; at the right what the payer will see. */
export function OfferComposer({
  id,
  placement,
  first,
  edited,
  revision: firstRevision,
  placed,
  classes,
  terms,
  partners,
  locale,
  house,
}: {
  id: string;
  placement: Placement;
  first: OfferDraft;
  /** What was edited of a placed one and not kept yet. */
  edited: OfferDraft | null;
  revision: number;
  placed: boolean;
  classes: readonly string[];
  terms: readonly { id: string; name: string }[];
  partners: readonly { id: string; name: string }[];
  locale: string;
  house: House;
}) {
  const router = useRouter();
  const of = useOffer(id, first, firstRevision, placed, edited);
  const { draft, offer, set, setDraft, troubles, trouble, changed, revision, busy } = of;
  const words = PLACEMENT_WORDS[placement];
  const sheet = `${words.path}/${id}` as Route;

  async function done() {
    // A page is placed by publishing it, which is done where it is designed.
    const design = placement === 'page' && !placed;
    const fine = placed || design ? await of.keepNow() : await of.place();
    if (!fine) return;
    if (design) return router.push(`/ask/design/${id}` as Route);
    say(placed ? 'The changes are saved' : words.placed);
    router.push(sheet);
    router.refresh();
  }

  return (
    <form
      noValidate
      className="mx-auto max-w-[1440px] px-4 pb-24 sm:px-7"
      onSubmit={(event) => {
        event.preventDefault();
        void done();
      }}
    >
      <div className="flex h-[58px] items-center gap-4">
        <Link className="link" href={sheet}>
          {words.list}
        </Link>
        <span
          aria-live="polite"
          className="small flex-1 text-soft"
          data-keeping={changed && !of.isBeside ? 'waits' : 'kept'}
        >
          {changed
            ? of.isBeside
              ? 'Saved as a draft; payers read what is placed'
              : 'Saving …'
            : placed
              ? ''
              : 'Draft, saved'}
        </span>
        {placed && changed ? (
          <Button look="link" onClick={() => void of.discard()}>
            Discard the draft
          </Button>
        ) : null}
        <Link className="btn" href={`/proof/offer/${id}/page` as Route} target="_blank">
          Rehearse
        </Link>
        <Button type="submit" look="go" busy={busy} busyWords="One moment">
          {placed ? 'Place the changes' : words.place}
        </Button>
      </div>
      <div className="grid gap-7 lg:grid-cols-[minmax(0,764fr)_minmax(0,432fr)]">
        <div className="sheet px-6 py-5 sm:px-8">
          <h1 className="sr-only">
            {placed ? 'Edit' : 'Make'} the {words.one}
          </h1>
          {trouble ? (
            <div className="mb-3" role="alert">
              <FieldError>{trouble}</FieldError>
            </div>
          ) : null}
          <div className="grid gap-4">
            <Field
              label="What is it for? The payer reads this"
              className="[&_input]:!font-serif [&_input]:!text-[20px]/[28px]"
              value={offer.title}
              maxLength={120}
              autoFocus={!placed}
              error={troubles.title}
              onChange={(event) => {
                const title = event.target.value;
                // The name on the list follows, until somebody gives it another.
                const follows =
                  draft.name === offer.title || /^New (payment link|hosted page|button)$/.test(draft.name);
                setDraft({
                  ...draft,
                  offer: { ...offer, title },
                  name: follows && title.trim() ? title : draft.name,
                });
              }}
            />
            <OfferWhat of={of} classes={classes} />
            <TextField
              label="Words about it"
              value={offer.description}
              maxLength={4000}
              onChange={(event) => set({ description: event.target.value })}
            />
          </div>
          <div className="mt-5 border-t border-ink">
            {placement === 'button' ? <ButtonSection of={of} accent={asFront(house, offer).accent} /> : null}
            {placement === 'link' ? <LinkSection of={of} /> : null}
            <AskedSection of={of} terms={terms} />
            <PricesSection of={of} />
            {offer.kind === 'items' || offer.kind === 'sum' ? <DeliverySection of={of} /> : null}
            <FrontSection of={of} house={house} />
            <LimitsSection of={of} />
            <RepeatSection of={of} />
            <AfterSection of={of} />
            <ShareSection of={of} partners={partners} locale={locale} />
            <details className="border-b border-rule">
              <summary className="flex min-h-11 items-baseline gap-3 py-2.5">
                <span className="font-serif text-[16.5px]/6 font-medium">Name on your list</span>
                <span className="min-w-0 flex-1 truncate text-soft">{draft.name}</span>
              </summary>
              <div className="pb-4">
                <Field
                  label="Only you see it"
                  value={draft.name}
                  maxLength={120}
                  error={troubles.name}
                  onChange={(event) => setDraft({ ...draft, name: event.target.value })}
                />
              </div>
            </details>
          </div>
        </div>
        <OfferProof
          src={`/proof/offer/${id}/page`}
          mail={`/proof/offer/${id}/mail`}
          stamp={revision}
          note={
            changed && placed
              ? 'As it is placed now; save your changes to see them here.'
              : 'Pay in it with a pretend card: nothing is booked.'
          }
        />
      </div>
    </form>
  );
}
