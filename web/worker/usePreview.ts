import { useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { Preview } from '../../core/evidence/comparisons/previewCase.ts';
import type { Line } from '../../core/documents/case.schema.ts';
import type { ClaimView } from '../api/claims.ts';
import { fromPatch, type Patch } from './patch.ts';

/**
 * The claim as it would be with lines as they are being typed, computed in a worker by the function the server uses.
 * Null while nothing is typed. Answers that arrive late, for something typed before, are not
 * shown, though those after them tell only what is other than in them.
 */
export function usePreview(view: ClaimView, lines: Line[] | null): Preview | null {
  const worker = useRef<Worker | null>(null);
  const asked = useRef(0);
  const [answer, setAnswer] = useState<Preview | null>(null);

  useEffect(() => {
    const started = new Worker(new URL('./preview.worker.ts', import.meta.url), { type: 'module' });
    worker.current = started;
    let last: Extract<Preview, { ok: true }> | null = null;
    started.onmessage = ({ data }: MessageEvent<{ id: number; patch: Patch }>) => {
      const preview = fromPatch(last, data.patch);
      if (preview.ok) last = preview;
      // drawn at once: a frame of its own between answer and drawing would be one more to wait for
      if (data.id === asked.current) flushSync(() => setAnswer(preview));
    };
    started.postMessage({ type: 'open', document: view.document, evidence: view.evidence });
    return () => started.terminate();
  }, [view]);

  useEffect(() => {
    asked.current += 1;
    if (lines) worker.current?.postMessage({ type: 'change', id: asked.current, lines });
  }, [view, lines]);

  return lines ? answer : null;
}
