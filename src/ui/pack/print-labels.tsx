'use client';
import { useState } from 'react';
import { labelPlaces } from '@/core/parcel/label';
import { LABEL_SHEETS, type LabelSheet } from '@/core/parcel/profile';
import { Dialog } from '../kit/dialog';
import { Segment } from '../kit/segment';

const SHEET_WORDS: Readonly<Record<LabelSheet, string>> = {
  a6: 'A6, one each',
  'a4-2': 'A4, two',
  'a4-4': 'A4, four',
  own: 'Own size',
};

/** The sheet as it lies in the printer: what is used, where the first label goes, and what follows. */
function Sheet({
  sheet,
  own,
  begin,
  count,
  onBegin,
}: {
  sheet: LabelSheet;
  own: { widthMm: number; heightMm: number };
  begin: number;
  count: number;
  onBegin: (place: number) => void;
}) {
  const { width, height, places } = labelPlaces(sheet, own);
  if (places.length < 2) return null;
  return (
    <fieldset>
      <legend className="label mb-1">Begin at</legend>
      <div className="relative border border-rule bg-wash" style={{ width: 168, height: (168 * height) / width }}>
        {places.map((place, at) => {
          const state = at < begin ? 'used' : at === begin ? 'next' : at < begin + count ? 'follows' : 'free';
          return (
            <label
              key={`${place.x} ${place.y}`}
              className={`absolute grid cursor-pointer place-items-center border border-dashed border-rule text-[12px] ${state === 'next' ? 'outline outline-2 -outline-offset-2 outline-plum bg-petal font-semibold' : state === 'follows' ? 'bg-sheet' : state === 'used' ? 'text-soft bg-[repeating-linear-gradient(45deg,var(--rule)_0_1px,transparent_1px_6px)]' : ''}`}
              style={{
                left: `${(place.x / width) * 100}%`,
                top: `${(place.y / height) * 100}%`,
                width: `${(place.width / width) * 100}%`,
                height: `${(place.height / height) * 100}%`,
              }}
            >
              <input
                type="radio"
                name="begin"
                className="absolute opacity-0"
                aria-label={`Place ${at + 1}`}
                checked={at === begin}
                onChange={() => onBegin(at)}
              />
              {state === 'used' ? `${at + 1} used` : `${at + 1}`}
            </label>
          );
        })}
      </div>
    </fieldset>
  );
}

/** On what labels are printed, and from which place on. */
export function PrintLabels({
  ids,
  declared = [],
  usual,
  own,
  onClose,
}: {
  ids: readonly string[];
  /** Those of them that go through customs, with a form outside the parcel. */
  declared?: readonly string[];
  usual: LabelSheet;
  own: { widthMm: number; heightMm: number };
  onClose: () => void;
}) {
  const [sheet, setSheet] = useState(usual);
  const [begin, setBegin] = useState(0);
  const { places } = labelPlaces(sheet, own);
  const sheets = Math.ceil((begin + ids.length) / places.length);
  const address = (as: 'pdf' | 'zpl') =>
    `/api/parcels/labels?ids=${ids.join(',')}&sheet=${sheet}&begin=${begin}&as=${as}`;
  return (
    <Dialog
      open
      onOpenChange={(next) => !next && onClose()}
      title={ids.length === 1 ? 'Print the label' : `Print ${ids.length} labels`}
      about="They can be printed again at any time."
    >
      <div className="grid gap-4">
        <Segment
          label="On"
          value={sheet}
          choices={LABEL_SHEETS.map((one) => [one, SHEET_WORDS[one]] as const)}
          onChoose={(next) => {
            setSheet(next);
            setBegin(0);
          }}
        />
        <Sheet sheet={sheet} own={own} begin={begin} count={ids.length} onBegin={setBegin} />
        <p className="small text-soft">
          {sheets === 1 ? 'One sheet' : `${sheets} sheets`}
          {sheet === 'own' ? `, ${own.widthMm} × ${own.heightMm} mm` : ''}.
        </p>
        <div className="flex flex-wrap items-center justify-end gap-4">
          <a className="link" href={address('zpl')} download>
            For a label printer (ZPL)
          </a>
          {declared.length > 0 ? (
            <a
              className="link"
              href={`/api/parcels/customs?ids=${declared.join(',')}`}
              target="_blank"
              rel="noreferrer"
            >
              {declared.length === 1 ? 'Customs form' : `${declared.length} customs forms`}
            </a>
          ) : null}
          <a className="link" href={`/api/parcels/slips?ids=${ids.join(',')}`} target="_blank" rel="noreferrer">
            Packing slips
          </a>
          <a
            className="btn btn-go"
            href={address('pdf')}
            target="_blank"
            rel="noreferrer"
            onClick={() => setTimeout(onClose, 0)}
          >
            {ids.length === 1 ? 'Print label' : `Print ${ids.length} labels`}
          </a>
        </div>
      </div>
    </Dialog>
  );
}
