/** One of a few words, chosen by pressing it. */
export function Segment<Value extends string>({
  label,
  value,
  choices,
  hidden = false,
  onChoose,
}: {
  label: string;
  value: Value;
  choices: readonly (readonly [Value, string])[];
  /** Whether the label is there for screen readers only. */
  hidden?: boolean;
  onChoose: (value: Value) => void;
}) {
  return (
    <fieldset>
      <legend className={hidden ? 'sr-only' : 'label mb-1'}>{label}</legend>
      <div className="segment">
        {choices.map(([one, words]) => (
          <button
            key={one}
            type="button"
            data-state={one === value ? 'on' : 'off'}
            aria-pressed={one === value}
            onClick={() => onChoose(one)}
          >
            {words}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
