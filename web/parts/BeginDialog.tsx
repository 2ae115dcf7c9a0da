import type { ReactNode } from 'react';
import type { FieldValues } from 'react-hook-form';
import { Dialog } from './Dialog.tsx';
import { Problem } from './Field.tsx';
import type { TypedForm } from './form/useTypedForm.ts';

interface BeginDialogProps<T extends FieldValues> {
  title: string;
  typed: TypedForm<T>;
  onClose: () => void;
  children: ReactNode;
}

/** A form that begins a record and goes to it; what is wrong is said at its field when it is sent. */
export function BeginDialog<T extends FieldValues>({ title, typed, onClose, children }: BeginDialogProps<T>) {
  const { form, submit, forget } = typed;
  const { errors, isSubmitting } = form.formState;
  const close = () => {
    forget();
    onClose();
  };
  return (
    <Dialog title={title} onClose={close}>
      <form onSubmit={submit} noValidate>
        {children}
        <Problem says={errors.root?.message ?? null} />
        <button className="btn btn-primary btn-sm mt-3" disabled={isSubmitting}>
          Begin
        </button>
      </form>
    </Dialog>
  );
}
