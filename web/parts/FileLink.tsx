import { useRef } from 'react';

interface FileLinkProps {
  label: string;
  onFile: (file: File) => void;
}

/** A link that asks for one file, on a phone also from the camera. */
export function FileLink({ label, onFile }: FileLinkProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <button type="button" className="link min-h-6 text-sm" onClick={() => input.current?.click()}>
        {label}
      </button>
      <input
        ref={input}
        type="file"
        className="hidden"
        tabIndex={-1}
        aria-label={label}
        onChange={(e) => {
          const file = e.target.files?.[0];
          e.target.value = '';
          if (file) onFile(file);
        }}
      />
    </>
  );
}
