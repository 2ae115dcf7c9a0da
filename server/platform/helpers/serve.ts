import { serialize } from 'node:v8';

const MOST_ANSWER_BYTES = 128 * 1024 * 1024;

/**
 * What a helper's process does: each task that comes is begun, done and answered, one after the other. `say` turns a
 * failure into words for people; what it does not know stays here.
 */
export function serve<Task>(done: (task: Task) => unknown, say: (error: unknown) => string): void {
  let chain = Promise.resolve();
  const answer = async (task: Task) => {
    try {
      const result = await done(task);
      if (serialize(result).length > MOST_ANSWER_BYTES) return { ok: false, says: 'it holds more than can be shown' };
      return { ok: true, result };
    } catch (error) {
      return { ok: false, says: say(error) };
    }
  };
  process.on('message', ({ id, ...task }: Task & { id: number }) => {
    chain = chain.then(async () => {
      process.send!({ id, begun: true });
      process.send!({ id, ...(await answer(task as Task)) });
    });
  });
  process.on('disconnect', () => process.exit(0));
}
