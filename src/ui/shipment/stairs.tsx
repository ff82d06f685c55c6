import type { Look, ParcelState } from '@/core/parcel/shipment';

/** How many steps down the stairs a state is: from the label to the door. */
const STEPS: Readonly<Record<ParcelState, number>> = {
  packing: 0,
  buying: 0,
  bought: 0,
  moving: 2,
  door: 3,
  waiting: 3,
  delivered: 4,
  lost: 2,
  damaged: 3,
  back: 3,
  returned: 3,
  voided: 0,
};

const STEP = 5.5;
const points = (from: number, to: number): string => {
  let path = `M${2 + from * STEP} ${2 + from * STEP}`;
  for (let at = from; at < to; at++) path += `h${STEP}v${STEP}`;
  return path;
};

const COLOUR = (state: ParcelState, look: Look | null): string =>
  look === 'late' || look === 'lost' || look === 'damaged'
    ? 'stroke-brick fill-brick'
    : look
      ? 'stroke-ochre fill-ochre'
      : state === 'delivered'
        ? 'stroke-leaf fill-leaf'
        : state === 'voided'
          ? 'stroke-edge fill-edge'
          : 'stroke-dusk fill-dusk';

/** A parcel's way as stairs from the label down to the door: solid as far as it is, dotted what is to come. Its word stands beside it. */
export function Stairs({ state, look, size = 26 }: { state: ParcelState; look: Look | null; size?: number }) {
  const at = STEPS[state];
  return (
    <svg
      width={size}
      height={size}
      viewBox="0 0 26 26"
      aria-hidden="true"
      className={COLOUR(state, look)}
      strokeWidth="1.7"
    >
      <path d={points(at, 4)} className="fill-none opacity-70" strokeDasharray="1.5 2" />
      <path d={points(0, at)} className="fill-none" />
      <circle cx={2 + at * STEP} cy={2 + at * STEP} r={at === 0 ? 1.6 : 2} stroke="none" />
      <path d="M20 25h5.5" className={state === 'delivered' ? '' : 'opacity-70'} />
    </svg>
  );
}
