import { zodResolver } from '@hookform/resolvers/zod';
import { useForm, type DefaultValues, type FieldValues, type Path, type UseFormReturn } from 'react-hook-form';
import type { z } from 'zod';
import { ApiError } from '../../api/client.ts';
import { useKeptForm } from './keptForm.ts';

export interface TypedForm<T extends FieldValues> {
  form: UseFormReturn<T>;
  /** Checks what is typed, goes to the first field that cannot be, and else runs; a refusal lands on the field it names. */
  submit: (event?: { preventDefault(): void }) => void;
  /** Throws away what is kept of it. */
  forget: () => void;
}

/**
 * A form of what a person types: checked by a schema when it is sent, kept on this device under the name of what it is about
 * until it was sent or thrown away.
 */
export function useTypedForm<T extends FieldValues>(
  of: { says: string; schema: z.ZodType<T, T>; start: T },
  run: (typed: T, form: UseFormReturn<T>) => Promise<unknown>,
): TypedForm<T> {
  const form = useForm<T>({ resolver: zodResolver(of.schema), defaultValues: of.start as DefaultValues<T> });
  const forget = useKeptForm(form, of.says, form.formState.isDirty);
  const send = async (typed: T): Promise<void> => {
    try {
      await run(typed, form);
      forget();
    } catch (error) {
      sayRefusal(form, error as Error);
    }
  };
  return { form, forget, submit: (event) => void form.handleSubmit(send)(event as never) };
}

/** Says what the server refused at the field it names, or at the foot of the form. */
export function sayRefusal<T extends FieldValues>(form: UseFormReturn<T>, error: Error): void {
  const path = error instanceof ApiError && typeof error.numbers.path === 'string' ? error.numbers.path : '';
  const named = path.split('.').find((part) => part in form.getValues());
  if (named === undefined) form.setError('root', { message: error.message });
  else form.setError(named as Path<T>, { message: error.message }, { shouldFocus: true });
}
