import { ToggleGroup } from 'radix-ui';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  /** one that is called what it is may be only its name */
  readonly options: readonly (T | { readonly value: T; readonly label: string })[];
  onChange(value: NoInfer<T>): void;
}

/** One of a few, all in sight. The chosen one is filled, and said to be pressed. */
export function Choice<T extends string>({ label, value, options, onChange }: ChoiceProps<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => next && onChange(next as T)}
      className="flex flex-wrap border-y border-l border-ink"
    >
      {options.map((option) => {
        const { value: each, label: called } = typeof option === 'string' ? { value: option, label: option } : option;
        return (
          <ToggleGroup.Item
            key={each}
            value={each}
            className="min-h-12 grow border-r border-ink px-3 text-body whitespace-nowrap hover:bg-mat data-[state=on]:bg-ink data-[state=on]:text-paper"
          >
            {called}
          </ToggleGroup.Item>
        );
      })}
    </ToggleGroup.Root>
  );
}
