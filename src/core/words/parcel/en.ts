import type { CustomerState } from '../../parcel/shipment';

/** How a parcel stands, for whom it is for. */
const STATES: Readonly<Record<CustomerState, string>> = {
  packed: 'Being packed',
  moving: 'On its way',
  door: 'Comes today',
  waiting: 'Waits to be fetched',
  delivered: 'Delivered',
  late: 'Later than promised',
  trouble: 'Something went wrong on the way; we look into it',
  back: 'On its way back to us',
};

/** What customers read of their parcels, in English. */
export const parcelEn = {
  states: STATES,
  heading: 'Where it is',
  parcel: (at: number, of: number) => `Parcel ${at} of ${of}`,
  inIt: 'In it',
  number: 'Number',
  by: (service: string) => `By ${service}`,
  expected: (date: string) => `Should be with you on ${date}`,
  expectedWas: (date: string) => `Was promised for ${date}`,
  arrived: (date: string) => `Arrived on ${date}`,
  taken: (name: string) => `Taken by ${name}`,
  lastSeen: (place: string) => `Last seen: ${place}`,
  notYet: 'Not everything has left yet; the rest follows.',
  subjects: {
    left: (house: string) => `Your parcel from ${house} is on its way`,
    door: (house: string) => `Your parcel from ${house} comes today`,
    delivered: (house: string) => `Your parcel from ${house} has arrived`,
    late: (house: string) => `Your parcel from ${house} is late`,
  },
  leads: {
    left: 'It has left',
    door: 'It comes today',
    delivered: 'It has arrived',
    late: 'It is late',
  },
  words: {
    left: (date: string) => `It left today and should be with you by ${date}.`,
    door: 'Somebody should be there to take it. If nobody is, the carrier leaves word where it can be fetched.',
    delivered: 'The carrier has handed it over. If you have not got it, answer this mail.',
    late: (date: string) =>
      `It was promised for ${date} and is not there yet. We have an eye on it, and you need to do nothing.`,
  },
  see: 'See where it is',
  slip: 'Packing slip',
  order: 'Order',
  invoice: 'Invoice',
  quantity: 'How many',
  what: 'What',
  restFollows: 'The rest follows in another parcel.',
};

export type ParcelWords = typeof parcelEn;
