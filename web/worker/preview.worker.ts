import { previewCase, type CasePreview } from '../../core/evidence/comparisons/reviewCase.ts';
import type { Case, Line } from '../../core/documents/case.schema.ts';
import type { Evidence } from '../../core/evidence/comparisons/tie.types.ts';

/** Computes previews off the main thread: first the case, then one changed line after the other. */
export type PreviewRequest =
  { type: 'open'; document: Case; evidence: Evidence } | { type: 'change'; id: number; line: Line };

let current: CasePreview | null = null;

self.onmessage = ({ data }: MessageEvent<PreviewRequest>) => {
  switch (data.type) {
    case 'open':
      current = previewCase(data.document, data.evidence);
      return;
    case 'change':
      self.postMessage({ id: data.id, preview: current!.withLine(data.line) });
      return;
    default:
      data satisfies never;
  }
};
