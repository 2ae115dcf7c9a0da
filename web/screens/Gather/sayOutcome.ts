import type { FileAnswer } from '../../api/gather.ts';
import type { Upload } from './useUploads.ts';

/** What became of a file, in words: what was added, and each thing that was not, at its place. */
export function sayOutcome(answer: Extract<FileAnswer, { kind: 'imported' }>): Pick<Upload, 'says' | 'remark'> {
  const faults = [
    ...answer.outcomes
      .filter((o) => o.state === 'refused')
      .map((o) => `${o.account ? `Card ${o.account.slice(-4)}: ` : ''}${o.says}`),
    ...answer.problems.map((p) => `Line ${p.line}: ${p.says}.`),
  ];
  const good = answer.outcomes.filter((o) => o.state !== 'refused');
  const remark = good
    .map((o) => o.says ?? `Card ${o.account?.slice(-4)}: ${o.added} new of ${o.entries} entries.`)
    .join(' ');
  return { says: faults.join(' ') || null, remark: remark || null };
}
