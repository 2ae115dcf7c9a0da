import type { Box } from '../../../core/evidence/reading/reading.types.ts';
import { serve } from '../helpers/serve.ts';
import { inspect } from './reading/inspect.ts';
import { senderOf } from './reading/mail.ts';
import { combinePapers, cutPicture, dividePaper, type Paper } from './reading/papers.ts';
import { readFile, type FileToRead } from './reading/readFile.ts';
import { readRows, readStatementFile, type RowsToRead } from './statements/readStatementFile.ts';
import { Unreadable } from './unreadable.ts';

/**
 * A process of its own for files from outside: what is slow, hungry or hostile in them stays away from the server,
 * which ends this process when it takes too long or too much memory.
 */
export type Task =
  | { task: 'inspect'; bytes: Uint8Array }
  | ({ task: 'read' } & FileToRead)
  | { task: 'combine'; papers: Paper[] }
  | { task: 'divide'; bytes: Uint8Array; turns: number[]; parts: number[][] }
  | { task: 'cut'; bytes: Uint8Array; type: string; turns: number[]; places: Box[] }
  | { task: 'sender'; bytes: Uint8Array }
  | { task: 'statements'; bytes: Uint8Array }
  | ({ task: 'rows' } & RowsToRead);

/** What a file that failed in a way nobody foresaw is said to be; the library's own words are for nobody. */
const FAILED = 'it is damaged, or of a kind that cannot be read here';

serve(done, (error) => (error instanceof Unreadable ? error.message : FAILED));

function done(task: Task): Promise<unknown> | unknown {
  if (task.task === 'combine') return combinePapers(task.papers.map(ownBytes));
  const bytes = Buffer.from(task.bytes);
  switch (task.task) {
    case 'divide':
      return dividePaper({ bytes, turns: task.turns }, task.parts);
    case 'cut':
      return cutPicture({ ...task, bytes }, task.places);
    case 'inspect':
      return inspect(bytes);
    case 'read':
      return readFile({ ...task, bytes });
    case 'sender':
      return senderOf(bytes);
    case 'statements':
      return readStatementFile(bytes);
    case 'rows':
      return readRows({ ...task, bytes });
    default:
      return task satisfies never;
  }
}

/** What came from the other process is bytes, but no longer a buffer. */
const ownBytes = (paper: Paper): Paper => ({
  ...paper,
  bytes: Buffer.from(paper.bytes),
  views: paper.views.map((view) => Buffer.from(view)),
});
