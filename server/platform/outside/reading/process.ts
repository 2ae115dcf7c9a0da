import { inspect } from './inspect.ts';
import { readFile, type FileToRead } from './readFile.ts';

/**
 * A process of its own for files from outside: what is slow, hungry or hostile in them stays away from the server,
 * which ends this process when it takes too long.
 */
export type Task = { id: number; task: 'inspect'; bytes: Uint8Array } | ({ id: number; task: 'read' } & FileToRead);

let chain = Promise.resolve();
process.on('message', (task: Task) => {
  chain = chain.then(async () => {
    process.send!(await answer(task));
  });
});
process.on('disconnect', () => process.exit(0));

async function answer(task: Task) {
  try {
    const bytes = Buffer.from(task.bytes);
    const result = task.task === 'inspect' ? await inspect(bytes) : await readFile({ ...task, bytes });
    return { id: task.id, ok: true, result };
  } catch (error) {
    return { id: task.id, ok: false, problem: String((error as Error).message ?? error) };
  }
}
process.send!({ ready: true });
