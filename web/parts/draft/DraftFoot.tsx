import type { ReactNode } from 'react';

/** What a record in preparation comes to and what sends it on; it stays in sight at the foot of the page. */
export const DraftFoot = ({ children }: { children: ReactNode }) => (
  <div className="sticky bottom-0 z-20 -mx-4 mt-4 flex flex-wrap items-center gap-x-6 gap-y-1 border-t border-base-300 bg-base-100 px-4 py-2 shadow-[0_-2px_6px_rgb(0_0_0/6%)]">
    {children}
  </div>
);
