interface SelectFieldProps<T extends string> {
  readonly id: string;
  readonly label: string;
  readonly value: T;
  readonly options: readonly { readonly value: T; readonly label: string }[];
  readonly hint?: string;
  readonly autoFocus?: boolean;
  onChange(value: NoInfer<T>): void;
}

/** One of many, by the browser's own list: letters and arrows pick without looking. */
export function SelectField<T extends string>({
  id,
  label,
  value,
  options,
  hint,
  onChange,
  ...rest
}: SelectFieldProps<T>) {
  return (
    <div>
      <label htmlFor={id} className="block text-note text-quiet">
        {label}
      </label>
      <select
        id={id}
        className="mt-0.5 min-h-12 w-full border-b-2 border-ink bg-sheet px-1 text-body"
        value={value}
        onChange={(event) => onChange(event.target.value as T)}
        {...rest}
      >
        {options.map((each) => (
          <option key={each.value} value={each.value}>
            {each.label}
          </option>
        ))}
      </select>
      {hint && <p className="mt-1 text-note text-quiet">{hint}</p>}
    </div>
  );
}
