import { ChevronLeft, ChevronRight, Minus, Plus, RotateCw } from 'lucide-react';
import { useState } from 'react';
import type { Spot } from '../../core/evidence/reading/reading.types.ts';

/** A figure's place on a page, with what it is. */
export interface SpotMark {
  label: string;
  spot: Spot;
  /** The one that is looked at. */
  focus: boolean;
}
interface ReceiptViewerProps {
  id: string;
  pages: { width: number; height: number }[];
  label: string;
  marks?: readonly SpotMark[];
}

const ZOOMS = [1, 1.5, 2, 3, 4];

/**
 * The pages of a receipt with zoom, quarter turns and marks where figures were read; the same for claimant, approver and
 * reviewer. A mark in focus brings its page.
 */
export function ReceiptViewer({ id, pages, label, marks = [] }: ReceiptViewerProps) {
  const [zoom, setZoom] = useState(0);
  const [turns, setTurns] = useState(0);
  const [chosen, setChosen] = useState<number | null>(null);
  const [failed, setFailed] = useState(false);
  const wanted = marks.find((m) => m.focus)?.spot.page ?? null;
  const [seen, setSeen] = useState(wanted);
  if (wanted !== seen) {
    setSeen(wanted);
    setChosen(null);
  }
  const page = Math.min(pages.length, chosen ?? wanted ?? 1);
  const { width, height } = pages[page - 1] ?? { width: 1, height: 1 };
  const lying = turns % 2 === 1;
  const [w, h] = lying ? [height, width] : [width, height];
  return (
    <figure className="flex min-h-72 flex-1 flex-col border-t border-base-300">
      <figcaption className="flex items-center gap-1 px-4 py-1 text-sm">
        <span className="mr-auto truncate">{label}</span>
        {pages.length > 1 && (
          <>
            <Tool
              label="Page before"
              icon={<ChevronLeft size={15} />}
              disabled={page === 1}
              onClick={() => setChosen(page - 1)}
            />
            <span className="quiet text-xs whitespace-nowrap">
              {page} of {pages.length}
            </span>
            <Tool
              label="Next page"
              icon={<ChevronRight size={15} />}
              disabled={page === pages.length}
              onClick={() => setChosen(page + 1)}
            />
          </>
        )}
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
            <g transform={turned(turns, width, height)}>
              <image
                href={`/api/receipts/${id}/pages/${page}`}
                width={width}
                height={height}
                onError={() => setFailed(true)}
              />
              {marks
                .filter((m) => m.spot.page === page)
                .map((m) => (
                  <MarkBox key={m.label} mark={m} width={width} height={height} />
                ))}
            </g>
          </svg>
        )}
      </div>
    </figure>
  );
}

/** A frame around a figure, a little larger than it, with its name as a title. */
function MarkBox({ mark, width, height }: { mark: SpotMark; width: number; height: number }) {
  const { box } = mark.spot;
  const pad = Math.max(3, height * 0.004);
  return (
    <rect
      x={box.x * width - pad}
      y={box.y * height - pad}
      width={box.width * width + 2 * pad}
      height={box.height * height + 2 * pad}
      rx={pad}
      className={mark.focus ? 'spot spot-focus' : 'spot'}
    >
      <title>{mark.label}</title>
    </rect>
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
