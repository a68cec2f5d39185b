import { joiResolver } from '@hookform/resolvers/joi';
import type Joi from 'joi';
import { useEffect, useState } from 'react';
import { type DefaultValues, type FieldValues, type Path, type PathValue, useForm, useWatch } from 'react-hook-form';

/**
 * A form of typed fields. Its schema says what they have to be when it is sent; what is wrong is said at its field, and
 * nothing that was typed is lost.
 * `Typed` is what stands in the fields, `Sent` what the schema makes of it. Where `start` changes, since another window
 * said something, an untouched form follows; in one that somebody is typing in it is only offered.
 * @param options live: it is said while it is typed
 */
export function useFields<Typed extends FieldValues, Sent = Typed>(
  schema: Joi.ObjectSchema<Sent>,
  start: Typed,
  { live = false }: { readonly live?: boolean } = {},
) {
  const { control, register, handleSubmit, formState, reset, setValue, setError } = useForm<
    Typed,
    unknown,
    Sent & FieldValues
  >({
    mode: live ? 'onChange' : 'onSubmit',
    defaultValues: start as DefaultValues<Typed>,
    resolver: joiResolver(schema, { abortEarly: false, convert: true }) as never,
  });
  const now = useWatch({ control }) as Typed;
  const [filled, setFilled] = useState(start);
  const [lastSent, setLastSent] = useState<Typed | null>(null);
  const isNew = !isSame(start, filled);
  const isOwn = [filled, start, lastSent].some((each) => each !== null && isSame(now, each));
  if (isNew && isOwn) setFilled(start);
  useEffect(() => reset(filled), [filled, reset]);
  return {
    /** what another window said while something else stands here, and how to take it */
    offered: isNew && !isOwn ? { take: () => setFilled(start) } : null,
    /** for a `Field` */
    field: (name: Path<Typed>) => {
      const message = formState.errors[name]?.message;
      return { ...register(name), ...(typeof message === 'string' ? { problem: message } : {}) };
    },
    /** for a text area */
    area: register,
    /** for a `SelectField` or a `Choice` */
    pick: <Name extends Path<Typed>>(name: Name) => ({
      value: now[name] as PathValue<Typed, Name>,
      onChange: (value: PathValue<Typed, Name>) => setValue(name, value),
    }),
    /** what stands in a field now */
    typed: <Name extends Path<Typed>>(name: Name) => now[name] as PathValue<Typed, Name>,
    /** of the form's own submit, and of another button that sends it another way */
    sent: (act: (values: Sent) => unknown) =>
      handleSubmit(async (values) => {
        setLastSent(now);
        await act(values);
      }),
    empty: () => reset(start),
    setValue,
    setError,
  };
}

/** Are the same things in the fields? What stands around a text is nothing that somebody wrote. */
function isSame<Typed extends FieldValues>(a: Typed, b: Typed): boolean {
  const plain = (value: unknown) => (typeof value === 'string' ? value.trim() : JSON.stringify(value));
  return Object.keys(a).every((key) => plain(a[key]) === plain(b[key]));
}
