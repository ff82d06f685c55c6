import { usePress } from '../kit/press';
import { say, sayTrouble } from '../kit/toasts';
import type { WorkAct } from './work-row';

type Together = Extract<WorkAct, { do: 'charge' | 'card' | 'remind' }>;

type Many = { readonly done: number; readonly refused: readonly { readonly words: string }[] };

/** Whether several of such acts can be one. */
export const isTogether = (act: WorkAct | null): act is Together =>
  act?.do === 'charge' || act?.do === 'card' || act?.do === 'remind';

const things = (count: number): string => (count === 1 ? 'One' : String(count));

/** Does an act about one or many, and says how many were done and why the others were not. */
export function useTogether() {
  const { busy, press } = usePress({ keyed: true });
  const tell = ({ done, refused }: Many, words: (count: number) => string) => {
    if (done > 0) say(words(done));
    const [first] = refused;
    if (first) sayTrouble(refused.length === 1 ? first.words : `${refused.length} were left out. ${first.words}`);
  };
  async function doAll(act: Together): Promise<boolean> {
    if (act.do === 'charge') {
      const answer = await press<{ charged: number }>('/api/charges/again', { ids: act.chargeIds });
      if (!answer.ok) sayTrouble(answer.words);
      else {
        const left = act.chargeIds.length - answer.value.charged;
        const refused = Array.from({ length: left }, () => ({ words: 'Somebody has dealt with it meanwhile.' }));
        tell({ done: answer.value.charged, refused }, (count) => `${things(count)} being charged again`);
      }
      return answer.ok;
    }
    const [path, body] =
      act.do === 'card'
        ? ['/api/today/card-links', { customerIds: act.customerIds }]
        : ['/api/today/remind', { invoiceIds: act.invoiceIds, planIds: act.planIds }];
    const answer = await press<Many>(path, body);
    if (!answer.ok) sayTrouble(answer.words);
    else
      tell(answer.value, (count) =>
        act.do === 'card'
          ? `${count === 1 ? 'A link to give another card is' : `${count} links to give another card are`} on the way`
          : `${count === 1 ? 'A reminder is' : `${count} reminders are`} on the way`,
      );
    return answer.ok;
  }
  return { busy, doAll };
}
