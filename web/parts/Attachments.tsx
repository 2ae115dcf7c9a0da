import { useState } from 'react';
import type { Attachment } from '../../contract/primitives.ts';
import { Dialog } from './Dialog.tsx';
import { FileLink } from './FileLink.tsx';
import { ReceiptViewer } from './ReceiptViewer.tsx';
import { RemoveButton } from './RemoveButton.tsx';

interface AttachmentsProps {
  /** What they belong to, in words: "the claim". */
  of: string;
  attachments: readonly Attachment[];
  /** Without these nothing can be added or taken off. */
  onAdd?: ((file: File) => void) | undefined;
  onRemove?: ((attachment: Attachment) => void) | undefined;
}

/** The files that stand beside a record: each can be looked at; where it is in preparation they are added and taken off. */
export function Attachments({ of, attachments, onAdd, onRemove }: AttachmentsProps) {
  const [shown, setShown] = useState<Attachment | null>(null);
  if (attachments.length === 0 && !onAdd) return null;
  return (
    <div
      className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm"
      onDragOver={(e) => onAdd && e.dataTransfer.types.includes('Files') && e.preventDefault()}
      onDrop={(e) => {
        if (!onAdd || e.dataTransfer.files.length === 0) return;
        e.preventDefault();
        for (const file of e.dataTransfer.files) onAdd(file);
      }}
    >
      <span className="quiet">Files</span>
      {attachments.map((one) => (
        <span key={one.id} className="flex max-w-72 items-center gap-1">
          <button type="button" className="link truncate" title={`Added by ${one.by}`} onClick={() => setShown(one)}>
            <bdi>{one.name}</bdi>
          </button>
          {onRemove && <RemoveButton what={one.name} onRemove={() => onRemove(one)} />}
        </span>
      ))}
      {onAdd && <FileLink label={`Add a file to ${of}`} onFile={onAdd} />}
      {shown && (
        <Dialog title={shown.name} onClose={() => setShown(null)} wide>
          <div className="flex h-[70dvh]">
            <ReceiptViewer from="attachments" id={shown.id} pages={shown.pages} label={shown.name} />
          </div>
        </Dialog>
      )}
    </div>
  );
}
