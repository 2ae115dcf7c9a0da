import type { ReactNode } from 'react';
import { ApiError } from '../api/client.ts';

/** A skeleton in the shape of what is coming. */
export function Loading({ shape }: { shape: 'page' | 'rows' | 'sheet' }) {
  const rows = Array.from({ length: shape === 'page' ? 4 : 9 }, (_, i) => (
    <div key={i} className="skeleton h-9 w-full rounded" />
  ));
  return (
    <div
      aria-busy="true"
      aria-label="Loading"
      className={`grid w-full gap-2 p-4 ${shape === 'sheet' ? 'grid-cols-1 lg:grid-cols-[1fr_26rem]' : ''}`}
    >
      <div className="grid content-start gap-2">{rows}</div>
      {shape === 'sheet' && <div className="skeleton hidden h-96 rounded lg:block" />}
    </div>
  );
}

/** What failed, what is safe, what to do. */
export function Trouble({ error, retry }: { error: unknown; retry: () => void }) {
  const known = error instanceof ApiError ? error : null;
  return (
    <div role="alert" className="m-6 max-w-xl rounded-box border border-error/50 bg-base-100 p-5">
      <h1 className="font-semibold">This could not be shown</h1>
      <p className="mt-1">{known?.message ?? 'Something failed in this page. Nothing was changed.'}</p>
      {known?.reference && (
        <p className="quiet mt-1">
          Reference <code className="font-mono">{known.reference}</code>
        </p>
      )}
      <button type="button" className="btn btn-sm mt-3" onClick={retry}>
        Try again
      </button>
    </div>
  );
}

/** What would be here, and the next step. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="m-6 max-w-xl rounded-box border border-dashed border-base-300 p-6">
      <h2 className="font-semibold">{title}</h2>
      <div className="quiet mt-1">{children}</div>
    </div>
  );
}
