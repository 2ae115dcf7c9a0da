import { Dialog as Radix } from 'radix-ui';
import type { ReactNode } from 'react';

interface DialogProps {
  title: string;
  onClose: () => void;
  wide?: boolean;
  children: ReactNode;
}

/**
 * Something that has to be dealt with before the page goes on; Escape and Close end it. The focus stays inside, and goes back
 * to where it was. It hangs at the end of the page, so that it may hold a form though it was opened from one; what is sent in
 * it stays in it.
 */
export const Dialog = ({ title, onClose, wide = false, children }: DialogProps) => (
  <Radix.Root open onOpenChange={(open) => !open && onClose()}>
    <Radix.Portal>
      <Radix.Overlay className="fixed inset-0 z-40 bg-black/40" />
      <Radix.Content
        data-dialog
        aria-describedby={undefined}
        onOpenAutoFocus={beginAtField}
        onPointerDownOutside={(event) => event.preventDefault()}
        onSubmit={(event) => event.stopPropagation()}
        className={`fixed top-1/2 left-1/2 z-50 max-h-[92dvh] max-w-[94vw] -translate-1/2 overflow-auto rounded-box border border-base-300 bg-base-100 p-5 text-base-content shadow-xl ${wide ? 'w-[72rem]' : 'w-[34rem]'}`}
      >
        <header className="mb-3 flex items-center gap-3">
          <Radix.Title className="min-w-0 flex-1 text-lg font-semibold">{title}</Radix.Title>
          <Radix.Close className="btn btn-sm">Close</Radix.Close>
        </header>
        {children}
      </Radix.Content>
    </Radix.Portal>
  </Radix.Root>
);

/** The first thing to fill in, rather than what comes first, which is Close. */
function beginAtField(event: Event): void {
  const field = (event.currentTarget as HTMLElement).querySelector<HTMLElement>(
    'input:not(:disabled), textarea:not(:disabled)',
  );
  if (!field) return;
  event.preventDefault();
  field.focus({ preventScroll: true });
}

/** Whether something has to be dealt with before the page goes on, a month to choose a day from too: keys are not the page's. */
export const isDialogOpen = (): boolean => document.querySelector('[data-dialog], [data-day-pick]') !== null;
