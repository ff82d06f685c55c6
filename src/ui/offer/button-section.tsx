'use client';
import {
  BUTTON_SHAPES,
  BUTTON_SIZES,
  type ButtonLook,
  buttonLabel,
  buttonPicture,
  CARD_SCHEMES,
  completeButton,
  WIDEST_PICTURE,
  WORDINGS,
} from '@/core/button/button';
import { contrast } from '@/core/look/contrast';
import { LANGUAGES, type Language } from '@/core/words/words';
import { TickField } from '../kit/check';
import { Field, TextField } from '../kit/field';
import { SelectField } from '../kit/select';
import { PictureField } from '../picture-field';
import { Collapsible } from './collapsible';
import type { OfferEditing } from './use-offer';

const PLAIN = 4.5;

/** What the button looks like, and on which websites it may open the checkout. */
export function ButtonSection({ of, accent }: { of: OfferEditing; accent: string }) {
  const { draft, setDraft, troubles } = of;
  const look = completeButton(draft.look, accent);
  const set = (part: Partial<ButtonLook>) => setDraft({ ...draft, look: { ...look, ...part } });
  const { svg, width, height } = buttonPicture(look);
  async function takePicture(fileId: string | null) {
    if (!fileId) return set({ picture: null });
    const image = new Image();
    image.src = `/files/own/${fileId}`;
    await image.decode();
    const shrink = Math.min(1, WIDEST_PICTURE / image.naturalWidth);
    const [width, height] = [image.naturalWidth, image.naturalHeight].map((side) => Math.round(side * shrink));
    set({ picture: { fileId, width: width ?? 1, height: height ?? 1 } });
  }
  const wordingOf = (wording: ButtonLook['wording']) => buttonLabel({ ...look, wording });
  return (
    <Collapsible name="The button" now={buttonLabel(look)} open>
      <div className="grid place-items-center border border-rule bg-wash py-6">
        {/* biome-ignore lint/performance/noImgElement: drawn on the spot */}
        <img
          src={look.picture ? `/files/own/${look.picture.fileId}` : `data:image/svg+xml,${encodeURIComponent(svg)}`}
          alt={buttonLabel(look)}
          width={look.picture?.width ?? width}
          height={look.picture?.height ?? height}
        />
      </div>
      <div className="flex flex-wrap gap-3">
        <SelectField
          label="Wording"
          className="w-[160px]"
          value={look.wording}
          onChange={(event) => set({ wording: event.target.value as ButtonLook['wording'] })}
        >
          {WORDINGS.map((wording) => (
            <option key={wording} value={wording}>
              {wordingOf(wording)}
            </option>
          ))}
          <option value="own">your own words</option>
        </SelectField>
        {look.wording === 'own' ? (
          <Field
            label="Your words"
            className="w-[180px]"
            maxLength={40}
            value={look.label}
            onChange={(event) => set({ label: event.target.value })}
          />
        ) : (
          <SelectField
            label="Language"
            className="w-[130px]"
            value={look.language}
            onChange={(event) => set({ language: event.target.value as Language })}
          >
            {Object.entries(LANGUAGES).map(([code, { name }]) => (
              <option key={code} value={code}>
                {name}
              </option>
            ))}
          </SelectField>
        )}
        <SelectField
          label="Size"
          className="w-[110px]"
          value={look.size}
          onChange={(event) => set({ size: event.target.value as ButtonLook['size'] })}
        >
          {BUTTON_SIZES.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </SelectField>
        <SelectField
          label="Shape"
          className="w-[110px]"
          value={look.shape}
          onChange={(event) => set({ shape: event.target.value as ButtonLook['shape'] })}
        >
          {BUTTON_SHAPES.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </SelectField>
        <Field
          label="Colour"
          type="color"
          className="w-[80px]"
          value={look.accent}
          hint={
            contrast(look.accent, '#ffffff') < PLAIN && contrast(look.accent, '#241A26') < PLAIN
              ? 'Hard to read.'
              : undefined
          }
          onChange={(event) => set({ accent: event.target.value })}
        />
      </div>
      <PictureField
        name="picture of your own"
        purpose="picture"
        fileId={look.picture?.fileId ?? null}
        onPicture={(fileId) => void takePicture(fileId)}
      />
      {look.picture ? (
        <p className="small text-soft">The wording is what people read who do not see the picture.</p>
      ) : null}
      <fieldset className="flex flex-wrap gap-x-6 gap-y-1.5">
        <legend className="label mb-1">Card schemes named below it</legend>
        {CARD_SCHEMES.map((scheme) => (
          <TickField
            key={scheme}
            label={scheme}
            checked={look.schemes.includes(scheme)}
            onChange={(event) =>
              set({
                schemes: CARD_SCHEMES.filter((one) =>
                  one === scheme ? event.target.checked : look.schemes.includes(one),
                ),
              })
            }
          />
        ))}
      </fieldset>
      <TextField
        label="Websites on which it may open the checkout over the page, one a line"
        placeholder="https://www.shop.example"
        defaultValue={draft.sites.join('\n')}
        hint="Elsewhere the button leads to the checkout’s own page."
        error={Object.entries(troubles).find(([field]) => field.startsWith('sites'))?.[1]}
        onBlur={(event) =>
          setDraft({
            ...draft,
            sites: event.target.value
              .split(/\s+/)
              .map((one) => one.trim().replace(/\/+$/, '').toLowerCase())
              .filter(Boolean),
          })
        }
      />
    </Collapsible>
  );
}
