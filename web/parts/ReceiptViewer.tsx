import { Minus, Plus, RotateCw } from 'lucide-react';
import { useState } from 'react';

interface ReceiptViewerProps {
  id: string;
  width: number;
  height: number;
  label: string;
}

const ZOOMS = [1, 1.5, 2, 3, 4];

/** The picture of a receipt with zoom and quarter turns; the same for claimant, approver and reviewer. */
export function ReceiptViewer({ id, width, height, label }: ReceiptViewerProps) {
  const [zoom, setZoom] = useState(0);
  const [turns, setTurns] = useState(0);
  const [failed, setFailed] = useState(false);
  const lying = turns % 2 === 1;
  const [w, h] = lying ? [height, width] : [width, height];
  return (
    <figure className="flex min-h-72 flex-1 flex-col border-t border-base-300">
      <figcaption className="flex items-center gap-1 px-4 py-1 text-sm">
        <span className="mr-auto">{label}</span>
        <Tool label="Smaller" icon={<Minus size={15} />} disabled={zoom === 0} onClick={() => setZoom(zoom - 1)} />
        <span className="quiet w-10 text-center text-xs">{Math.round(ZOOMS[zoom]! * 100)} %</span>
        <Tool
          label="Larger"
          icon={<Plus size={15} />}
          disabled={zoom === ZOOMS.length - 1}
          onClick={() => setZoom(zoom + 1)}
        />
        <Tool label="Turn" icon={<RotateCw size={15} />} onClick={() => setTurns((turns + 1) % 4)} />
      </figcaption>
      <div
        className="min-h-0 flex-1 overflow-auto bg-base-300 p-2"
        tabIndex={0}
        role="group"
        aria-label={`${label}, scrollable`}
      >
        {failed ? (
          <p role="alert" className="p-3">
            The picture could not be loaded.{' '}
            <button type="button" className="link" onClick={() => setFailed(false)}>
              Try again
            </button>
          </p>
        ) : (
          <svg
            viewBox={`0 0 ${w} ${h}`}
            className="mx-auto block"
            style={{ width: `${ZOOMS[zoom]! * 100}%`, maxWidth: zoom === 0 ? `${w}px` : 'none' }}
            role="img"
            aria-label={label}
          >
            <image
              href={`/api/receipts/${id}/view`}
              width={width}
              height={height}
              transform={turned(turns, width, height)}
              onError={() => setFailed(true)}
            />
          </svg>
        )}
      </div>
    </figure>
  );
}

function turned(turns: number, width: number, height: number): string {
  const shifts = ['', `translate(${height} 0)`, `translate(${width} ${height})`, `translate(0 ${width})`];
  return `${shifts[turns]} rotate(${turns * 90})`;
}

function Tool({
  label,
  icon,
  onClick,
  disabled = false,
}: {
  label: string;
  icon: React.ReactNode;
  onClick: () => void;
  disabled?: boolean;
}) {
  return (
    <button
      type="button"
      className="btn btn-sm btn-square"
      aria-label={label}
      title={label}
      disabled={disabled}
      onClick={onClick}
    >
      {icon}
    </button>
  );
}
