/** Something that can be done from anywhere; `also` are other words for it. */
export type Action = {
  readonly words: string;
  readonly key?: string;
  readonly group: 'New' | 'Go to' | 'This desk';
  readonly also?: string;
  readonly do: () => void;
};

/** The actions whose words begin with all that was typed, each word anywhere; those that begin with it first. */
export function actionsFor(actions: readonly Action[], line: string): readonly Action[] {
  const typed = line.trim().toLowerCase();
  if (typed === '') return actions;
  const asked = typed.split(/\s+/);
  const fits = ({ words, also = '' }: Action) => {
    const own = `${words} ${also}`.toLowerCase().split(/[\s’]+/);
    return asked.every((word) => own.some((one) => one.startsWith(word)));
  };
  const begins = ({ words }: Action) => words.toLowerCase().startsWith(typed);
  return actions.filter(fits).sort((a, b) => Number(begins(b)) - Number(begins(a)));
}
