import { previewCase, type CasePreview, type Preview } from '../../core/evidence/comparisons/previewCase.ts';
import type { Case, Line } from '../../core/documents/case.schema.ts';
import type { Evidence } from '../../core/evidence/comparisons/tie.types.ts';
import { toPatch } from './patch.ts';

/** Computes previews off the main thread: first the case, then the changed lines as they are typed. */
export type PreviewRequest =
  { type: 'open'; document: Case; evidence: Evidence } | { type: 'change'; id: number; lines: Line[] };

let current: CasePreview | null = null;
let sent: Extract<Preview, { ok: true }> | null = null;

self.onmessage = ({ data }: MessageEvent<PreviewRequest>) => {
  switch (data.type) {
    case 'open':
      current = previewCase(data.document, data.evidence);
      sent = null;
      return;
    case 'change': {
      const preview = current!.withLines(data.lines);
      self.postMessage({ id: data.id, patch: toPatch(sent, preview) });
      if (preview.ok) sent = preview;
      return;
    }
    default:
      data satisfies never;
  }
};
