import { useEffect, useEffectEvent } from 'react';
import type { FieldValues, Path, PathValue, UseFormReturn } from 'react-hook-form';
import { useLocation } from 'react-router';
import { drop, keep, kept } from '../kept.ts';
import { useUnsaved } from '../unsaved.ts';

type Form<T extends FieldValues> = Pick<UseFormReturn<T>, 'watch' | 'setValue'>;

/**
 * Keeps what a person typed in a form of several fields, as `useKept` does for one, and brings it back after a reload: field by
 * field, so that what nobody typed is what the record says now. The answer throws it away, once it was sent. `says` is what the
 * form is about, for whoever leaves.
 */
export function useKeptForm<T extends FieldValues>(
  { watch, setValue }: Form<T>,
  says: string,
  dirty: boolean,
): () => void {
  const { pathname } = useLocation();
  const name = `${pathname} form ${says}`;
  const bringBack = useEffectEvent(() => {
    for (const [field, value] of Object.entries(kept<Partial<T>>(name) ?? {}))
      setValue(field as Path<T>, value as PathValue<T, Path<T>>, { shouldDirty: true, shouldValidate: true });
  });
  useEffect(() => {
    bringBack();
    // a list of fields is kept as a whole
    const { unsubscribe } = watch((values, { name: at }) => {
      const field = at?.split('.')[0];
      if (field) keep(name, { ...kept<Partial<T>>(name), [field]: values[field] });
    });
    return unsubscribe;
  }, [name, watch]);
  useUnsaved(dirty, { says, kept: true });
  return () => drop(name);
}
