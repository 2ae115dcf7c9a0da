import type { FileAnswer } from '../../api/gather.ts';
import type { Upload } from '../../parts/useUploads.ts';

type Imported = Extract<FileAnswer, { kind: 'imported' }>;
const MOST_PROBLEMS = 20;

/** What became of a file, in words: what was added, and each thing that was not, at its place. */
export function sayOutcome(answer: FileAnswer): Pick<Upload, 'says' | 'remark'> {
  switch (answer.kind) {
    case 'table':
      return { says: null, remark: 'Say which column holds what.' };
    case 'rehearsed':
      return { says: null, remark: 'Nothing is taken yet. Look at what the rows would become, below.' };
    case 'imported':
      return sayImported(answer);
    default:
      return answer satisfies never;
  }
}

function sayImported({ outcomes, problems }: Imported): Pick<Upload, 'says' | 'remark'> {
  const refused = outcomes.filter((o) => o.state === 'refused');
  const faults = [
    ...refused.map((o) => `${o.account ? `Card ${o.account.slice(-4)}: ` : ''}${o.says}`),
    ...problems.slice(0, MOST_PROBLEMS).map((p) => `Line ${p.line}: ${p.says}.`),
    ...(problems.length > MOST_PROBLEMS ? [`And ${problems.length - MOST_PROBLEMS} more lines.`] : []),
  ];
  const remark = outcomes
    .filter((o) => o.state !== 'refused')
    .map(sayTaken)
    .join(' ');
  return { says: faults.join(' ') || null, remark: remark || null };
}

function sayTaken({ account, entries, added, known, pending, says }: Imported['outcomes'][number]): string {
  if (says) return says;
  const parts = [
    `${added} new`,
    ...(known ? [`${known} there already`] : []),
    ...(pending ? [`${pending} not yet booked`] : []),
  ];
  return `Card ${account?.slice(-4)}: of ${entries + pending} entries ${parts.join(', ')}.`;
}
