import type { ReactNode } from 'react';
import { Dialog } from './Dialog.tsx';

interface ConfirmProps {
  title: string;
  /** What is done, as its button says it. */
  act: string;
  onYes: () => void;
  onClose: () => void;
  children: ReactNode;
}

/** Asks before something that cannot simply be undone. */
export const Confirm = ({ title, act, onYes, onClose, children }: ConfirmProps) => (
  <Dialog title={title} onClose={onClose}>
    <p>{children}</p>
    <div className="mt-4 flex gap-3">
      <button type="button" className="btn btn-primary btn-sm" onClick={onYes}>
        {act}
      </button>
      <button type="button" className="btn btn-sm" onClick={onClose}>
        Leave it as it is
      </button>
    </div>
  </Dialog>
);
