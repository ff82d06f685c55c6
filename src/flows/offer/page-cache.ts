/** A finished page of an offer's: `until` is a moment of this process, in milliseconds of `performance.now()`. */
export type Finished = {
  readonly businessId: string;
  readonly offerId: string;
  readonly html: string;
  readonly until: number;
};

/** Pages as they were handed out last, by name, language and currency. */
export const finished = new Map<string, Finished>();

/** What is handed out is made anew: an offer or a page has changed. */
export const forgetPages = (): void => finished.clear();
