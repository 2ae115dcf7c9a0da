import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { ApiError, newKey } from '../../api/client.ts';
import type { ClaimView } from '../../api/claims.ts';
import { postClaim } from '../../api/journals.ts';
import { toast } from '../../parts/toast.tsx';
import type { SheetState } from './useSheet.ts';

/** Posting cannot be undone, so its effect (the journal below) is shown first. The key makes a double click one posting. */
export function PostPanel({ sheet, view, onClose }: { sheet: SheetState; view: ClaimView; onClose: () => void }) {
  const [date, setDate] = useState(view.document.postingDate);
  const [key] = useState(newKey);
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();
  const { mutate } = useSWRConfig();
  const post = async () => {
    setBusy(true);
    setProblem(null);
    try {
      // The figures were shown for the proposed date; another date may take other rates, so then no fingerprint is sent.
      const digest = date === view.document.postingDate ? view.digest : null;
      const { journal } = await postClaim({
        claim: view.claim.number,
        revision: view.claim.revision,
        date,
        digest,
        key,
      });
      await mutate((k) => typeof k === 'string');
      toast({ text: `${view.claim.number} is posted as ${journal}` });
      void navigate(`/ledger/${journal}`);
    } catch (error) {
      setProblem((error as Error).message);
      if (error instanceof ApiError && error.status === 409) void sheet.reload();
      setBusy(false);
    }
  };
  return (
    <form
      className="flex flex-wrap items-center gap-2 border-t border-base-300 bg-base-200 px-4 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        void post();
      }}
    >
      <span>The journal below goes to the ledger and can only be reversed.</span>
      <label className="flex items-center gap-2">
        Posting date{' '}
        <input
          type="date"
          required
          autoFocus
          className="input input-sm"
          value={date}
          onChange={(e) => setDate(e.target.value)}
        />
      </label>
      <button className="btn btn-primary btn-sm" disabled={busy}>
        Post to the ledger
      </button>
      <button type="button" className="btn btn-sm" onClick={onClose}>
        Cancel
      </button>
      {problem && (
        <p role="alert" className="basis-full text-error">
          {problem}
        </p>
      )}
    </form>
  );
}
