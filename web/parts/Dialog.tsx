import { useEffect, useRef, type ReactNode } from 'react';
import { createPortal } from 'react-dom';

interface DialogProps {
  title: string;
  onClose: () => void;
  wide?: boolean;
  children: ReactNode;
}

/**
 * Something that has to be dealt with before the page goes on; Escape and Close end it. The browser keeps the focus inside.
 * It hangs at the end of the page, so that it may hold a form though it was opened from one; what is sent in it stays in it.
 */
export function Dialog({ title, onClose, wide = false, children }: DialogProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
    // The browser begins with what comes first, which is Close.
    dialog.current?.querySelector<HTMLElement>('input:not(:disabled)')?.focus();
  }, []);
  return createPortal(
    <dialog
      ref={dialog}
      onClose={onClose}
      onSubmit={(e) => e.stopPropagation()}
      aria-label={title}
      className={`m-auto max-h-[92dvh] max-w-[94vw] overflow-auto rounded-box border border-base-300 bg-base-100 p-5 text-base-content shadow-xl backdrop:bg-black/40 ${wide ? 'w-[72rem]' : 'w-[34rem]'}`}
    >
      <header className="mb-3 flex items-center gap-3">
        <h2 className="min-w-0 flex-1 text-lg font-semibold">{title}</h2>
        <form method="dialog">
          <button className="btn btn-sm">Close</button>
        </form>
      </header>
      {children}
    </dialog>,
    document.body,
  );
}
