import { createWorker, type Worker } from 'tesseract.js';
import { modelOf } from '../languages.ts';

const workers = new Map<string, Promise<Worker>>();

/** The recogniser of a language, made when it is first asked for. */
export function workerOf(language: string): Promise<Worker> {
  const made = workers.get(language) ?? begin(language);
  workers.set(language, made);
  return made;
}

async function begin(language: string): Promise<Worker> {
  const made = await createWorker(language, 1, { langPath: modelOf(language), gzip: true, cacheMethod: 'none' });
  await made.setParameters({ user_defined_dpi: '300' });
  return made;
}
