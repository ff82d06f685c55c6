import type { Words } from '@/core/words/words';
import type { AcceptWords } from '@/ui/plan/accept-plan';

/** What the form says in which a customer agrees and enters a card. @param button what its button says */
export const acceptWords = (words: Words, button = words.plan.begin): AcceptWords => ({
  agree: words.plan.agree,
  yourName: words.plan.yourName,
  yourCard: words.plan.yourCard,
  begin: button,
  nameNeeded: words.plan.nameNeeded,
  agreeNeeded: words.plan.agreeNeeded,
  processorAway: words.processorAway,
  cardFields: words.cardFields,
  cardSilent: words.cardSilent,
  sending: words.paying,
  cardGoes: words.cardGoes,
  troubles: words.troubles,
});
