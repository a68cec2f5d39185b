import type { InputHTMLAttributes, Ref } from 'react';

interface FieldProps extends InputHTMLAttributes<HTMLInputElement> {
  readonly label: string;
  readonly hint?: string;
  readonly problem?: string;
  /** the label is for a screen reader only: what stands beside it says the same */
  readonly bare?: boolean;
  readonly ref?: Ref<HTMLInputElement>;
}

export function Field({ label, hint, problem, bare = false, id, ...rest }: FieldProps) {
  const fieldId = id ?? `field-${label.toLowerCase().replaceAll(/\W+/g, '-')}`;
  return (
    <div>
      <label htmlFor={fieldId} className={bare ? 'sr-only' : 'block text-note text-quiet'}>
        {label}
      </label>
      <input
        id={fieldId}
        aria-invalid={problem ? true : undefined}
        aria-describedby={problem ? `${fieldId}-problem` : undefined}
        className="mt-0.5 min-h-12 w-full border-b-2 border-ink bg-transparent px-1 text-body aria-invalid:border-now"
        {...rest}
      />
      {problem && (
        <p id={`${fieldId}-problem`} className="mt-1 text-note text-now">
          {problem}
        </p>
      )}
      {hint && !problem && <p className="mt-1 text-note text-quiet">{hint}</p>}
    </div>
  );
}
