import { FILE_TOO_LARGE } from '../file/size';
import type { VoucherProblem } from '../voucher/voucher';
import { voucherEn } from '../words/voucher/en';

/** Every "no" that a rule can say to a person. */
export type RefusalCode =
  | 'sign-in-failed'
  | 'sign-in-too-often'
  | 'not-signed-in'
  | 'not-allowed'
  | 'not-found'
  | 'draft-changed-elsewhere'
  | 'draft-already-sent'
  | 'paper-not-ready'
  | 'customer-without-email'
  | 'customer-without-phone'
  | 'has-payments'
  | 'credit-too-large'
  | 'payment-too-large'
  | 'already-cancelled'
  | 'file-not-taken'
  | 'file-too-large'
  | 'approve-first'
  | 'accept-first'
  | 'asked-too-often'
  | 'not-well-formed'
  | 'code-taken'
  | 'no-dates'
  | 'invoice-not-sent'
  | 'invoice-not-payable'
  | 'already-paid'
  | 'amount-changed'
  | 'too-many-attempts'
  | 'payment-under-way'
  | 'offer-not-open'
  | 'order-not-ready'
  | 'offer-not-ready'
  | 'offer-in-use'
  | 'address-taken'
  | 'address-wrong'
  | 'code-word-taken'
  | 'not-a-robot'
  | 'refund-too-large'
  | 'refund-refused'
  | 'refund-under-way'
  | 'disputed'
  | 'dispute-closed'
  | 'nothing-to-refund'
  | 'void-too-late'
  | 'credited-by-lines'
  | 'lines-not-settled'
  | 'not-by-card'
  | 'no-credit'
  | 'voucher-used'
  | 'voucher-not-over'
  | VoucherProblem
  | 'nothing-to-transfer'
  | 'own-account-missing'
  | 'rates-not-read'
  | 'request-ended'
  | 'account-unknown'
  | 'account-closed'
  | 'account-in-use'
  | 'account-not-checking'
  | 'credits-differ'
  | 'credits-refused'
  | 'account-not-checked'
  | 'payout-not-returned'
  | 'nothing-to-pay-out'
  | 'no-banking-day'
  | 'on-statement'
  | 'statement-not-read'
  | 'statement-mapping-missing'
  | 'line-matched'
  | 'match-too-much'
  | 'match-nothing'
  | 'match-taken'
  | 'bank-silent'
  | 'processor-silent'
  | 'charge-settled'
  | 'charges-now'
  | 'card-not-kept'
  | 'plan-not-ready'
  | 'plan-ended'
  | 'plan-runs'
  | 'plan-of-another-kind'
  | 'no-such-day'
  | 'plan-changed-elsewhere'
  | 'authorise-first'
  | 'no-card'
  | 'not-asked'
  | 'payment-not-by-hand'
  | 'is-credit-note'
  | 'e-invoice-not-whole'
  | 'calendar-not-read'
  | 'link-over'
  | 'table-not-read'
  | 'too-much'
  | 'length-unknown'
  | 'address-not-read'
  | 'much-nonsense'
  | 'too-slow'
  | 'file-too-heavy'
  | 'attempt-used'
  | 'work-first'
  | 'password-wrong'
  | 'password-weak'
  | 'address-signs-in'
  | 'sign-up-too-often'
  | 'figures-differ'
  | 'figures-over'
  | 'mails-too-often'
  | 'address-confirmed'
  | 'mail-not-confirmed'
  | 'cards-not-answered'
  | 'cards-not-open'
  | 'last-owner'
  | 'here-already'
  | 'invited-already'
  | 'not-here'
  | 'step-first'
  | 'step-unconfirmed'
  | 'step-needed'
  | 'step-own-first'
  | 'keys-enough'
  | 'tax-number-wrong'
  | 'still-open'
  | 'keeping-wrong'
  | 'take-along-first'
  | 'name-differs'
  | 'paper-full'
  | 'address-not-whole'
  | 'label-asked-for'
  | 'more-than-there-is'
  | 'nothing-left-in-it'
  | 'label-kept'
  | 'carrier-silent'
  | 'balance-short'
  | 'nothing-to-buy'
  | 'told-already'
  | 'amount-not-taken'
  | 'profile-in-use'
  | 'profiles-enough'
  | 'no-stock-kept'
  | 'nothing-to-book'
  | 'nothing-to-fetch'
  | 'nothing-to-hand-over'
  | 'no-pick-up'
  | 'nothing-to-return'
  | 'return-moved-on'
  | 'no-return-label'
  | 'name-missing'
  | 'download-over'
  | 'nothing-to-claim'
  | 'claimed-already'
  | 'nothing-to-settle'
  | 'no-border'
  | 'nothing-to-propose'
  | 'no-statement-yet'
  | 'statement-unreadable'
  | 'settled-already'
  | 'sale-dropped'
  | 'business-closed'
  | 'prove-again'
  | 'code-wrong'
  | 'recovery-wrong'
  | 'codes-spent'
  | 'passkey-not-taken'
  | 'half-over'
  | 'key-over'
  | 'sign-in-first'
  | 'address-same'
  | 'hook-address'
  | 'hooks-enough'
  | 'identity-first'
  | 'identity-closed'
  | 'identity-not-whole';

const WORDS: Readonly<Record<RefusalCode, string>> = {
  'sign-in-failed': 'This address and password do not go together. Try again.',
  'sign-in-too-often': 'Too many tries. Wait a few minutes, then try again.',
  'not-signed-in': 'You are no longer signed in. Sign in again; what you typed is kept on this computer.',
  'not-allowed': 'You may look at this, but not change it. Ask the owner of the business.',
  'not-found': 'This is not here any more. Go back to the list and choose again.',
  'draft-changed-elsewhere':
    'This draft was changed in another window. Reload to see it; what you typed here is kept on this computer.',
  'draft-already-sent': 'This invoice has been sent. What it says can no longer be changed.',
  'paper-not-ready': 'Something on the paper needs a look first.',
  'customer-without-email': 'There is no e-mail address for this customer. Add one, or copy the link instead.',
  'customer-without-phone': 'There is no phone number for this customer. Add one, or send it another way.',
  'has-payments': 'Money has come in for this invoice, so it cannot be cancelled. Write a credit note instead.',
  'credit-too-large': 'This is more than is left to be credited. Look at the amount again.',
  'payment-too-large': 'This is more than is still due. Look at the amount again.',
  'already-cancelled': 'This invoice is cancelled.',
  'file-not-taken':
    'This kind of file is not taken. PDF, PNG, JPEG, GIF, WebP, TIFF, DOCX, XLSX and CSV are; save it as one of them.',
  'file-too-large': FILE_TOO_LARGE,
  'approve-first': 'A file waits for your approval. Look at it and approve it before you pay; nothing was charged.',
  'accept-first': 'Accept the terms and conditions before you pay; nothing was charged.',
  'asked-too-often': 'Several questions are on their way already. Wait a while, or answer the e-mail instead.',
  'not-asked': 'Others are asked to approve this file, each with a link of their own.',
  'payment-not-by-hand': 'Only a payment recorded by hand can be voided. A card payment is refunded.',
  'is-credit-note': 'This is a credit note. Credit the invoice that it is about, on the invoice’s own sheet.',
  'e-invoice-not-whole': 'Something is missing for an e-invoice. The invoice itself is as it was; its PDF can be sent.',
  'not-well-formed':
    'This file cannot be read as an e-invoice. Ask the sender for a UBL 2.1 or a Cross Industry Invoice file.',
  'code-taken': 'Another item has this code. Give this one a code of its own.',
  'no-dates': 'This schedule has no date at all. Change its start or its end.',
  'invoice-not-sent': 'This invoice has not been sent yet.',
  'invoice-not-payable': 'This invoice can no longer be paid here. Ask whoever sent it.',
  'already-paid': 'This invoice is already paid. Nothing was charged.',
  'amount-changed': 'The amount due has changed. Look at it again before you pay; nothing was charged.',
  'too-many-attempts': 'Too many cards were tried. Nothing was charged: wait a while, then try again.',
  'offer-not-open': 'This cannot be paid any more. Nothing was charged.',
  'order-not-ready': 'Something needs a look first. Nothing was charged.',
  'offer-not-ready': 'Something has to be filled in first.',
  'offer-in-use': 'This has been used, so it cannot be deleted. Close it instead.',
  'address-taken': 'Somebody has this address already. Take another one.',
  'address-wrong': 'An address has 3 to 48 small letters and digits, with single strokes between them.',
  'code-word-taken': 'You have another code of these letters. Take other ones.',
  'not-a-robot':
    'Your browser could not show that a person is at work. Reload the page and try again; nothing was charged.',
  'refund-too-large': 'This is more than is left to be refunded. Look at the amount again.',
  'refund-refused': 'The card processor does not give this back. Ask it why, or pay it back another way, by hand.',
  'voucher-used': 'Something of what was bought is used already: only what is left on the vouchers can be refunded.',
  'voucher-not-over': 'A voucher is made good for longer, not shorter. Choose a later day.',
  'voucher-unknown': voucherEn.problems['voucher-unknown'],
  'voucher-over': voucherEn.problems['voucher-over'],
  'voucher-used-up': voucherEn.problems['voucher-used-up'],
  'voucher-currency': voucherEn.problems['voucher-currency'],
  'voucher-blocked': voucherEn.problems['voucher-blocked'],
  disputed: 'The card’s holder asked for it back, and their bank has it: it is not refunded beside that.',
  'dispute-closed': 'It is answered, decided, or its last day is over: there is nothing more to send.',
  'refund-under-way': 'A refund of it is still being asked about at the card processor. Look again in a minute.',
  'nothing-to-refund': 'Only a payment that went through can be refunded, and this one has nothing left to give back.',
  'void-too-late': 'The day of this payment is closed, so it cannot be voided any more. Refund it instead.',
  'credited-by-lines':
    'It was credited by lines before, or by a sum: go on in the same way, or give back all that is left.',
  'lines-not-settled':
    'Something of the invoice is still open or was credited by a sum. Give back a sum instead of lines.',
  'nothing-to-transfer': 'No refund waits to be transferred. It may be in a file already.',
  'own-account-missing': 'Say in the profile first from which account transfers go out.',
  'no-credit': 'The customer has nothing to their credit in this currency any more.',
  'not-by-card': 'This payment did not come by card, so it goes back another way: in cash, by cheque or by transfer.',
  'rates-not-read': 'No rates could be read in this file. Choose the euro reference rates as XML or CSV.',
  'request-ended': 'This request was withdrawn or is paid already. Nothing was charged.',
  'account-unknown': 'The bank knows no account with this number. Look at it again.',
  'account-closed': 'This account is closed. Give another one.',
  'account-in-use': 'Money goes to this account already.',
  'account-not-checking': 'Nothing is to be confirmed here any more. Look at the page again.',
  'credits-differ': 'These are not the two sums. Look at the account’s statement and type them as they stand there.',
  'credits-refused': 'Three times other sums: this account is not used. Give it again, and two new sums are sent.',
  'account-not-checked':
    'There is no confirmed account for this currency yet. Give one, and confirm its two small sums.',
  'payout-not-returned': 'This payout did not come back, or was dealt with already. Look at it again.',
  'nothing-to-pay-out': 'Nothing is ready to be paid out yet, or it is below the smallest sum.',
  'on-statement': 'This payment stands on a statement of the bank. Undo it there first, under Money, Bank.',
  'statement-not-read': 'This file cannot be read as a bank’s statement.',
  'statement-mapping-missing': 'Say what the columns of this file are.',
  'line-matched': 'This line is matched already, or was changed meanwhile. Look at it again.',
  'match-too-much': 'That is more than the line has. Look at the sums again.',
  'match-nothing': 'Choose what the line is for.',
  'match-taken': 'That stands on another line already, or is no longer open. Look at it again.',
  'no-banking-day': 'Banks do not work today. Pay out on the next banking day.',
  'bank-silent': 'The bank does not answer just now. Nothing was saved; try again in a moment.',
  'processor-silent': 'The card processor does not answer just now. Try again in a while.',
  'charges-now':
    'This day is not to come any more: the charge would be made at once. Say that you want that, or choose a later day.',
  'charge-settled': 'This charge is dealt with already, or under way just now. Look at it again in a moment.',
  'card-not-kept':
    'The card processor could not keep this card. Nothing was charged: type it again, or use another card.',
  'plan-not-ready': 'Something of the plan needs a look first.',
  'plan-ended': 'This plan has ended or was withdrawn. Ask whoever sent it.',
  'plan-runs': 'This plan runs already, so there is nothing to be agreed to. Look at it again.',
  'plan-of-another-kind':
    'This cannot be done with this plan: the price of a membership can be changed, and a balance that runs can be finished early.',
  'no-such-day': 'This is no day of the calendar. Choose another one.',
  'plan-changed-elsewhere': 'This plan was changed in another window. Reload to see it as it is now.',
  'authorise-first': 'Without the customer’s authorisation no card is kept. Say how it was given, and by whom.',
  'calendar-not-read': 'No days could be read in this file. Choose an iCalendar file, which ends in .ics.',
  'table-not-read': 'No rows could be read. The first line holds the headings: e-mail, name, plan, price, start.',
  'too-much': 'That is more than can be taken at once. Send it in smaller parts.',
  'address-not-read': 'This address cannot be read. Check it and try again.',
  'length-unknown': 'Send it whole, with its length in the head of the request.',
  'much-nonsense': 'Much came from your connection that cannot be read. Wait a moment and try again.',
  'file-too-heavy':
    'This file could not be read within the time that one file gets. Save it anew in the program it is from, or send less of it.',
  'attempt-used': 'Something else was paid with this press already. Load the page anew, and look before you pay again.',
  'password-weak': 'Take another password.',
  'address-signs-in': 'This address signs in already. Sign in with it, or ask for a new password if it is forgotten.',
  'sign-up-too-often': 'Many have begun from here already. Wait an hour, then try again; what you typed stays here.',
  'figures-differ': 'These are not the six figures of the latest mail. Look at it again.',
  'figures-over': 'These figures are no longer good. Have new ones sent.',
  'mails-too-often': 'Several mails are on their way already. Look among what is taken for unwanted, or wait an hour.',
  'address-confirmed': 'This address is confirmed already.',
  'mail-not-confirmed':
    'Sending opens when your address is confirmed: type the six figures of the mail that we sent you, or follow its link.',
  'cards-not-answered': 'Something of the two answers needs a look first.',
  'cards-not-open':
    'Card payments open when you have said what you sell and under which name you are known: two answers in the profile.',
  'last-owner': 'A business keeps at least one owner. Make somebody else an owner first.',
  'here-already': 'Somebody with this address works here already.',
  'invited-already': 'This address is invited already. Send that invitation again, or withdraw it.',
  'not-here': 'They do not work here any more.',
  'step-first': 'This business asks for a second step when signing in. Set it up first, then go on.',
  'step-unconfirmed':
    'Confirm your e-mail address first: a second step belongs to an address that is known to be yours.',
  'step-needed': 'This business asks everybody for a second step. Add another one before you take this one away.',
  'tax-number-wrong': 'The tax number cannot be right. Look at it once more, or leave it out.',
  'keys-enough': 'There are twenty keys already. End one that is not needed any more.',
  'still-open': 'Something is still open. Deal with it first; then try again.',
  'keeping-wrong': 'One of these times cannot hold. Look at the marked place.',
  'take-along-first': 'Take everything along first: it must be no more than thirty days old.',
  'name-differs': 'This is not the name of the business. Type it as it stands above.',
  'business-closed':
    'This business is closed: everything can be looked at and taken along, and nothing more is written.',
  'step-own-first': 'Set up a second step of your own first; then ask everybody for one.',
  'prove-again': 'Show once more that it is you; then it is done.',
  'code-wrong': 'This code is not right, or was used already. Wait for the next one and type that.',
  'recovery-wrong': 'This recovery code is not right, or was used already. Look at the list again, and take another.',
  'codes-spent':
    'Too many wrong codes were typed today. Use a passkey, a recovery code, or a computer on which you signed in before.',
  'passkey-not-taken': 'This passkey was not taken. Try again, or take another way.',
  'half-over': 'This took too long. Write your password again.',
  'key-over': 'This key has waited too long. Begin again with a new one.',
  'sign-in-first': 'You have a second step. Sign in first; then accept the invitation.',
  'hook-address': 'This address cannot be used.',
  'hooks-enough': 'There are ten addresses already. Remove one that is not used any more.',
  'identity-first':
    'First show who stands behind the business: Settings, then Who stands behind it. Until then what is ready waits.',
  'identity-closed': 'This is with the office, or accepted already. It cannot be changed now.',
  'identity-not-whole': 'Something is missing still.',
  'address-same': 'This is your address already.',
  'work-first': 'Many wrong passwords were tried. Your computer works something out first; try again.',
  'password-wrong': 'This is not your password. Write it again.',
  'too-slow': 'This took too long and was given up. Look whether it was done before you try again.',
  'paper-full': 'A thousand parcels lie on the paper. Buy their labels, or take some off first.',
  'address-not-whole': 'The address needs a name, a street, a city, and where the country has them a postal code.',
  'label-asked-for': 'The label of this parcel is asked for, or bought. Give the label back first.',
  'more-than-there-is': 'There is not as much of it in this parcel. Look at the numbers again.',
  'nothing-left-in-it': 'Nothing would be left in this parcel. Take the whole parcel off the paper instead.',
  'label-kept': 'This label cannot be given back any more: a day has passed, or the carrier has scanned it.',
  'carrier-silent': 'The carrier does not answer just now. Nothing was changed; try again in a few minutes.',
  'balance-short': 'The balance at the carrier is too small for these labels. Top it up first.',
  'nothing-to-buy': 'No parcel on the paper is ready for its label. What each one lacks stands beside it.',
  'amount-not-taken': 'Write a sum above 0, and not more than 20,000 at once.',
  'told-already': 'The customer was told already. The day can be moved no more.',
  'no-stock-kept':
    'Of one of these no stock is kept any more. Take it off the list, or let its stock be counted under Records, Items.',
  'nothing-to-book': 'Write how many there are of at least one of them.',
  'nothing-to-claim': 'The carrier pays for what is lost, damaged or late, and this parcel is none of these.',
  'claimed-already': 'The carrier was asked already. What it says stands at the parcel.',
  'no-statement-yet': 'The carrier has no statement of this month yet. It comes a day after the month’s end.',
  'statement-unreadable': 'This is not a carrier’s statement that can be read.',
  'nothing-to-propose': 'None of these things is an item of yours that is posted: choose items first, then ask again.',
  'no-border': 'None of these crosses a border at which customs ask for a form.',
  'nothing-to-settle': 'By what the carrier says, this cannot be done with this parcel.',
  'settled-already': 'Something was done about this parcel already. Reload to see what.',
  'sale-dropped': 'The sale was given back or cancelled. Send what you like as a parcel without a sale.',
  'nothing-to-return': 'Not so much of it can be sent back any more. Reload, and choose what comes back.',
  'return-moved-on': 'Something was done about this return already. Reload to see what.',
  'no-return-label':
    'The carrier makes no label for it: the address it would come from is not known, or it takes nothing from there.',
  'nothing-to-hand-over': 'Nothing has its label and waits to be handed over.',
  'no-pick-up': 'The carrier does not come on that day. Choose another.',
  'nothing-to-fetch': 'Not so much of it waits here any more. Reload, and choose what is handed over.',
  'name-missing': 'Write who fetches it.',
  'download-over': 'This can be downloaded no more. Ask whoever sold it to you for it once more.',
  'profiles-enough': 'There are sixty profiles already. Remove one that is not used any more.',
  'profile-in-use': 'A rule chooses this profile. Change the rule first.',
  'link-over': 'This link has expired. Ask for a new one at the top of the page.',
  'no-card': 'There is no card on file that could be charged. Add one first.',
  'payment-under-way': 'A payment of this invoice is being checked. Wait for its outcome before you try again.',
};

/** What a refusal says to somebody at the desk. */
export const refusalWords = (code: RefusalCode): string => WORDS[code];
