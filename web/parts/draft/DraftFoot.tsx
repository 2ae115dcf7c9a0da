import type { ReactNode } from 'react';

/** The page of a record in preparation: as high as the window at least, so that its foot does not move under who presses it. */
export const DraftPage = ({ children }: { children: ReactNode }) => (
  <div className="mx-auto flex min-h-[calc(100dvh-2.75rem)] w-full max-w-7xl flex-col px-4">{children}</div>
);

/** What it comes to and what sends it on; the last of the page, it stays in sight. */
export const DraftFoot = ({ children }: { children: ReactNode }) => (
  <div
    data-foot
    className="sticky bottom-0 z-20 -mx-4 mt-auto flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-base-300 bg-base-100 px-4 py-2 shadow-[0_-2px_6px_rgb(0_0_0/6%)]"
  >
    {children}
  </div>
);
