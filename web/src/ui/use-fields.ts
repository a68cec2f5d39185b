import { joiResolver } from '@hookform/resolvers/joi';
import type Joi from 'joi';
import { type DefaultValues, type FieldValues, type Path, type PathValue, useForm, useWatch } from 'react-hook-form';

/**
 * A form of typed fields. Its schema says what they have to be when it is sent; what is wrong is said at its field, and
 * nothing that was typed is lost.
 * `Typed` is what stands in the fields, `Sent` what the schema makes of it.
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
  return {
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
    sent: (act: (values: Sent) => unknown) => handleSubmit(async (values) => void (await act(values))),
    empty: () => reset(start),
    setValue,
    setError,
  };
}
