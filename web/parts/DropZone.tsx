import { Camera, FilePlus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { useDropzone } from 'react-dropzone';
import type { Upload } from './useUploads.ts';

interface DropZoneProps {
  uploads: readonly Upload[];
  onFiles: (files: Iterable<File>) => void;
  onDismiss: (key: number) => void;
  accept: string;
  hint: string;
  camera?: boolean;
}

/** Takes files that are dropped, picked or pasted; on a phone also from the camera. Progress and faults stand at each name. */
export function DropZone({ uploads, onFiles, onDismiss, accept, hint, camera = false }: DropZoneProps) {
  // What a file is, and why it is not taken, is told by the server from its content.
  const { getRootProps, isDragActive } = useDropzone({ onDrop: onFiles, noClick: true, noKeyboard: true });
  usePaste(onFiles);
  return (
    <section
      {...getRootProps({ role: 'region', tabIndex: -1 })}
      aria-label="Add files"
      className={`rounded-box border-2 border-dashed p-3 ${isDragActive ? 'border-primary bg-base-100' : 'border-base-300'}`}
    >
      <div className="flex flex-wrap items-center gap-2">
        <Picker label="Add files" icon={<FilePlus size={16} />} accept={accept} multiple onFiles={onFiles} primary />
        {camera && (
          <Picker label="Take a picture" icon={<Camera size={16} />} accept="image/*" capture onFiles={onFiles} />
        )}
        <span className="quiet text-sm">{hint}</span>
      </div>
      {uploads.length > 0 && <Uploads uploads={uploads} onDismiss={onDismiss} />}
    </section>
  );
}

function Uploads({ uploads, onDismiss }: { uploads: readonly Upload[]; onDismiss: (key: number) => void }) {
  return (
    <ul aria-label="Files being added" className="mt-2 max-h-52 overflow-auto text-sm">
      {uploads.map((u) => (
        <UploadRow key={u.key} upload={u} onDismiss={() => onDismiss(u.key)} />
      ))}
    </ul>
  );
}

function UploadRow({ upload: u, onDismiss }: { upload: Upload; onDismiss: () => void }) {
  return (
    <li className="flex items-center gap-2 border-t border-base-300 py-1">
      <span className="min-w-0 flex-1">
        <bdi className="block truncate">{u.name}</bdi>
        {u.says && (
          <span role="alert" className="text-error">
            {u.says}
          </span>
        )}
        {u.remark && <span className="quiet">{u.remark}</span>}
      </span>
      {u.done ? (
        <button type="button" className="btn btn-xs" onClick={onDismiss}>
          {u.says || u.remark ? 'Dismiss' : 'Added'}
        </button>
      ) : (
        <progress className="progress progress-primary w-28" value={u.part} max={1} aria-label={`${u.name} is sent`} />
      )}
    </li>
  );
}

/** Files pasted anywhere on the page. */
function usePaste(onFiles: (files: Iterable<File>) => void): void {
  const latest = useRef(onFiles);
  useEffect(() => {
    latest.current = onFiles;
  });
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])];
      if (files.length === 0) return;
      event.preventDefault();
      latest.current(files);
    };
    document.addEventListener('paste', paste);
    return () => document.removeEventListener('paste', paste);
  }, []);
}

interface PickerProps {
  label: string;
  icon: React.ReactNode;
  accept: string;
  multiple?: boolean;
  capture?: boolean;
  primary?: boolean;
  onFiles: (files: Iterable<File>) => void;
}

function Picker({ label, icon, accept, multiple = false, capture = false, primary = false, onFiles }: PickerProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button
        type="button"
        className={`btn btn-sm ${primary ? 'btn-primary' : 'pointer-fine:hidden'}`}
        onClick={() => input.current?.click()}
      >
        {icon} {label}
      </button>
      <input
        ref={input}
        type="file"
        className="hidden"
        aria-label={label}
        tabIndex={-1}
        accept={accept}
        multiple={multiple}
        {...(capture ? { capture: 'environment' as const } : {})}
        onChange={(e) => {
          const files = [...(e.target.files ?? [])];
          e.target.value = '';
          if (files.length) onFiles(files);
        }}
      />
    </>
  );
}
