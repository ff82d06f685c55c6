const WORDS: Readonly<Record<string, string>> = {
  AC01: 'the account number is wrong',
  AC04: 'account closed',
  AC06: 'account blocked',
  AG01: 'the account takes no transfers',
  BE01: 'the name does not agree',
};

/** Why a bank sent money back, in words. @param reason an ISO 20022 external return reason code */
export const returnWords = (reason: string): string =>
  WORDS[reason] ?? (reason ? `the bank’s code is ${reason}` : 'no reason given');
