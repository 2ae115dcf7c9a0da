import { useState, type FormEvent } from 'react';
import { useNavigate } from 'react-router';
import { useSWRConfig } from 'swr';
import { ApiError } from '../../api/client.ts';
import type { ClaimView } from '../../api/claims.ts';
import { toast } from '../../parts/toast.tsx';
import type { SheetState } from './useSheet.ts';
import { DayField } from '../../parts/days/DayField.tsx';

interface PostPanelProps {
  sheet: SheetState;
  view: ClaimView;
  onClose: () => void;
}

/** Posting cannot be undone, so its effect (the journal below, of the date that is chosen) is shown first. */
export function PostPanel({ sheet, view, onClose }: PostPanelProps) {
  const { post, problem, busy } = usePosting(sheet, view);
  const { postingDate, setPostingDate, posting } = sheet;
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void post();
  };
  return (
    <form
      className="flex flex-wrap items-center gap-2 border-t border-base-300 bg-base-200 px-4 py-2"
      onSubmit={submit}
    >
      <span>The journal below goes to the ledger and can only be reversed.</span>
      <DateField date={postingDate ?? ''} onChange={setPostingDate} />
      <button className="btn btn-primary btn-sm" disabled={busy || posting === null || posting.against !== null}>
        Post to the ledger
      </button>
      <button type="button" className="btn btn-sm" onClick={onClose}>
        Cancel
      </button>
      {posting?.against && (
        <p role="status" className="basis-full text-error">
          Not on {posting.date}: {posting.against}
        </p>
      )}
      {problem && (
        <p role="alert" className="basis-full text-error">
          {problem}
        </p>
      )}
    </form>
  );
}

function DateField({ date, onChange }: { date: string; onChange: (date: string) => void }) {
  return (
    <label className="flex items-center gap-2">
      Posting date{' '}
      <DayField required autoFocus className="input input-sm" value={date} onChange={(day) => onChange(day)} />
    </label>
  );
}

/** Posts the journal that is shown. */
function usePosting(sheet: SheetState, { claim }: ClaimView) {
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();
  const { mutate } = useSWRConfig();
  const post = async () => {
    if (!sheet.posting) return;
    setBusy(true);
    setProblem(null);
    try {
      const { date, digest } = sheet.posting;
      const { journal } = await sheet.acts.post({ revision: claim.revision, date, digest });
      await mutate((k) => typeof k === 'string');
      toast({ text: `${claim.number} is posted as ${journal}` });
      void navigate(`/ledger/${journal}`);
    } catch (error) {
      setProblem((error as Error).message);
      if (error instanceof ApiError && error.status === 409) await Promise.all([sheet.reload(), sheet.previewAgain()]);
      setBusy(false);
    }
  };
  return { post, problem, busy };
}
