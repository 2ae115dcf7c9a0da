import type { ReactNode } from 'react';

interface IconButtonProps {
  label: string;
  icon: ReactNode;
  onClick: () => void;
}

/** A button that is an icon, named for whoever does not see it. */
export const IconButton = ({ label, icon, onClick }: IconButtonProps) => (
  <button
    type="button"
    className="rounded p-2 opacity-90 hover:opacity-100 focus-visible:outline-current"
    aria-label={label}
    title={label}
    onClick={onClick}
  >
    {icon}
  </button>
);
