import { addedAnswer } from '../../../../contract/gather.ts';
import { drafts } from '../../../api/drafts.ts';
import { upload } from '../../../api/upload.ts';
import { failed } from '../../../parts/failed.ts';
import { toast } from '../../../parts/toast.tsx';
import type { Draft } from './useDraft.ts';

/** Adds a file to the person's receipts and puts it on a line; a file that is refused is named with the reason. */
export async function addReceipt(draft: Draft, claim: string, line: string, file: File): Promise<void> {
  try {
    const { added } = await upload('/receipts', addedAnswer, file, () => undefined);
    const [first] = added.filter((a) => a.ok);
    const refused = added.find((a) => !a.ok);
    if (!first) throw new Error(refused && !refused.ok ? refused.says : 'The file was not added. Try again.');
    draft.run(
      `line ${line}`,
      (revision) => drafts.putReceipt(claim, revision, line, first.id),
      (error) => (error ? failed(error) : toast({ text: `${first.name} is the receipt of line ${line}` })),
    );
  } catch (error) {
    failed(error);
  }
}
