import { previewCase, type CasePreview } from '../../core/evidence/comparisons/reviewCase.ts';
import type { Case, Line } from '../../core/documents/case.schema.ts';
import type { Evidence } from '../../core/evidence/comparisons/tie.types.ts';

/** Computes previews off the main thread: first the case, then the changed lines as they are typed. */
export type PreviewRequest =
  { type: 'open'; document: Case; evidence: Evidence } | { type: 'change'; id: number; lines: Line[] };

let current: CasePreview | null = null;

self.onmessage = ({ data }: MessageEvent<PreviewRequest>) => {
  switch (data.type) {
    case 'open':
      current = previewCase(data.document, data.evidence);
      return;
    case 'change':
      self.postMessage({ id: data.id, preview: current!.withLines(data.lines) });
      return;
    default:
      data satisfies never;
  }
};
