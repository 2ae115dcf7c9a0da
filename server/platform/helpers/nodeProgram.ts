import { fileURLToPath } from 'node:url';
import { confine } from './confine.ts';
import type { HelperProgram } from './helper.ts';

/**
 * A program of ours as a helper runs it: its bundle beside this one when built, its source with a loader otherwise. It is
 * confined as far as this machine allows.
 */
export function nodeProgram(source: URL, bundle: string, heapMegabytes?: number): Omit<HelperProgram, 'megabytes'> {
  const built = import.meta.url.endsWith('.mjs');
  const file = fileURLToPath(built ? new URL(`./${bundle}.mjs`, import.meta.url) : source);
  const heap = heapMegabytes ? [`--max-old-space-size=${heapMegabytes}`] : [];
  return { file, nodeArgs: built ? heap : [...heap, '--import', 'tsx'], confinement: confine(file) };
}
