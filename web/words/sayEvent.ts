import type { HistoryEvent } from '../api/claims.ts';

const str = (value: unknown): string => (typeof value === 'string' || typeof value === 'number' ? String(value) : '');

/** "line 3", or "lines 1 to 4, 7": lines that follow each other are drawn together. Claims are not named. */
function list(lines: unknown): string {
  const names = (Array.isArray(lines) ? lines : []).map((l) => str(l).split('/').at(-1)!);
  const runs: string[][] = [];
  for (const name of names) {
    const run = runs.at(-1);
    if (run && Number(name) === Number(run.at(-1)) + 1) run.push(name);
    else runs.push([name]);
  }
  const parts = runs.flatMap((run) => (run.length > 2 ? [`${run[0]} to ${run.at(-1)}`] : run));
  return `${names.length === 1 ? 'line' : 'lines'} ${parts.join(', ')}`;
}

/** What happened, in a short sentence without its subject. */
export function sayEvent({ kind, facts, words }: HistoryEvent): string {
  const reason = words?.reason ? `: ${str(words.reason)}` : '';
  switch (kind) {
    case 'drafted':
      return 'began the claim';
    case 'submitted':
      return `submitted version ${str(facts.version)}`;
    case 'approved':
      return 'approved it; it went to review';
    case 'corrected':
      return `corrected line ${str(facts.line)}${facts.item ? `, item ${str(facts.item)}` : ''}: ${Object.keys((facts.to as object) ?? {}).join(', ')}`;
    case 'marked':
      return facts.mark === 'none'
        ? `took back the mark on line ${str(facts.line)} ${str(facts.tie)}`
        : `${facts.mark === 'seen' ? 'ticked' : 'waived'} line ${str(facts.line)} ${str(facts.tie)}${reason}`;
    case 'asked':
      return `asked about line ${str(facts.line)}: ${str(words?.text)}`;
    case 'cleared':
      return 'cleared it for posting';
    case 'reopened':
      return 'took it back into review';
    case 'returned':
      return `returned it${reason}`;
    case 'declined':
      return `declined it${reason}`;
    case 'withdrawn':
      return 'withdrew it';
    case 'held':
      return `put it on hold until ${str(facts.until)}${reason}`;
    case 'released':
      return 'took it off hold';
    case 'posted':
      return `posted it as ${str(facts.journal)} on ${str(facts.date)}`;
    case 'reversed':
      return `reversed ${str(facts.reverses)} by ${str(facts.journal)}${reason}`;
    case 'gathered':
      return `put ${list(facts.lines)} on it from what was gathered`;
    case 'paired':
      return `paired ${list(facts.lines)} with charges or receipts`;
    case 'unpaired':
      return `took the ${str(facts.what)} off ${list(facts.lines)}`;
    case 'edited':
      return `changed line ${str(facts.line)}: ${Array.isArray(facts.fields) ? facts.fields.map(str).join(', ') : ''}`;
    case 'line removed':
      return `took line ${str(facts.line)} off`;
    default:
      return kind;
  }
}

/** A moment as date and time in the reader's place. */
export function sayMoment(iso: string): string {
  const date = new Date(iso);
  return `${date.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })}, ${date.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })}`;
}
