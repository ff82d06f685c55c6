/** What customers read of what they bought as a file or a text, and of what they fetch, in English. */
export const digitalEn = {
  subject: (house: string) => `What you bought from ${house}`,
  heading: 'Yours to download',
  lead: 'It is paid, so here it is.',
  see: 'See what is yours',
  download: 'Download',
  times: (count: number) => (count === 1 ? 'once' : `${count} times`),
  until: (date: string) => `until ${date}`,
  left: (left: number) => (left === 1 ? 'one download left' : `${left} downloads left`),
  usedUp: 'Downloaded as often as it may be. Ask us if you need it once more.',
  over: 'Its time is over. Ask us if you need it once more.',
  readySubject: (house: string) => `Ready to be fetched from ${house}`,
  ready: 'Ready to be fetched',
  readyLead: 'What you bought lies at our counter. Whoever comes for it tells us your name or the number of the sale.',
  readySee: 'See what it is',
  toFetch: 'To be fetched from us',
  fetched: (date: string, name: string) => `Fetched on ${date} by ${name}`,
};

export type DigitalWords = typeof digitalEn;
