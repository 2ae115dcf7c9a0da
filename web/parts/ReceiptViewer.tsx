import { ChevronLeft, ChevronRight, Minus, Plus, RotateCw } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import type { Spot } from '../../core/evidence/reading/reading.types.ts';

type Papers = 'receipts' | 'attachments';

/** A figure's place on a page, with what it is. */
export interface SpotMark {
  label: string;
  spot: Spot;
  /** The one that is looked at. */
  focus: boolean;
  /** A row of what was bought: on the line that is looked at, on another one, or on none. */
  part?: 'own' | 'other' | 'none';
}
interface ReceiptViewerProps {
  /** Whose pages they are. */
  from?: Papers;
  id: string;
  pages: { width: number; height: number; turns: number }[];
  label: string;
  marks?: readonly SpotMark[];
  /** Keeps a page as it was turned, for whoever may say so; without it a turn is for this look alone. */
  onTurn?: (page: number, turns: number) => void;
}

const ZOOMS = [1, 1.5, 2, 3, 4];

/**
 * The pages of a receipt with zoom, quarter turns and marks where figures were read; the same for claimant, approver and
 * reviewer. A mark in focus brings its page.
 */
export function ReceiptViewer({ from = 'receipts', id, pages, label, marks = [], onTurn }: ReceiptViewerProps) {
  const [zoom, setZoom] = useState(0);
  const [turned, setTurned] = useState<Readonly<Record<number, number>>>({});
  const [failed, setFailed] = useState(false);
  const [page, setChosen] = usePage(pages.length, marks.find((m) => m.focus)?.spot.page ?? null);
  const paper = useShowFocus(
    marks.find((m) => m.focus),
    zoom,
    page,
  );
  const size = pages[page - 1] ?? { width: 1, height: 1, turns: 0 };
  const turns = turned[page] ?? size.turns;
  const turn = () => {
    const next = (turns + 1) % 4;
    setTurned({ ...turned, [page]: next });
    onTurn?.(page, next);
  };
  return (
    <figure className="flex min-h-72 flex-1 flex-col border-t border-base-300">
      <Tools
        label={label}
        page={page}
        of={pages.length}
        setChosen={setChosen}
        zoom={zoom}
        setZoom={setZoom}
        onTurn={turn}
      />
      <div
        ref={paper}
        className="min-h-0 flex-1 overflow-auto bg-base-300 p-2"
        tabIndex={0}
        role="group"
        aria-label={`${label}, scrollable`}
      >
        {failed ? (
          <NoPicture onAgain={() => setFailed(false)} />
        ) : (
          <PageWithMarks
            from={from}
            id={id}
            page={page}
            size={size}
            turns={turns}
            zoom={zoom}
            label={label}
            marks={marks}
            onFail={() => setFailed(true)}
          />
        )}
      </div>
    </figure>
  );
}

/** Scrolls the paper, and nothing around it, to the figure that is looked at. */
function useShowFocus(mark: SpotMark | undefined, zoom: number, page: number) {
  const paper = useRef<HTMLDivElement>(null);
  const at = mark ? `${mark.spot.page} ${mark.spot.box.x} ${mark.spot.box.y}` : null;
  useEffect(() => {
    const box = paper.current;
    const spot = box?.querySelector('.spot-focus');
    if (!box || !spot) return;
    const [outer, inner] = [box.getBoundingClientRect(), spot.getBoundingClientRect()];
    box.scrollTop += inner.top + inner.height / 2 - (outer.top + outer.height / 2);
    box.scrollLeft += inner.left + inner.width / 2 - (outer.left + outer.width / 2);
  }, [at, zoom, page]);
  return paper;
}

interface ToolsProps {
  label: string;
  page: number;
  of: number;
  setChosen: (page: number) => void;
  zoom: number;
  setZoom: (zoom: number) => void;
  onTurn: () => void;
}

function Tools({ label, page, of, setChosen, zoom, setZoom, onTurn }: ToolsProps) {
  return (
    <figcaption className="flex items-center gap-1 px-4 py-1 text-sm">
      <span className="mr-auto truncate">{label}</span>
      {of > 1 && <PageChoice page={page} of={of} onChange={setChosen} />}
      <ZoomChoice zoom={zoom} onChange={setZoom} />
      <Tool label="Turn" icon={<RotateCw size={15} />} onClick={onTurn} />
    </figcaption>
  );
}

function NoPicture({ onAgain }: { onAgain: () => void }) {
  return (
    <p role="alert" className="p-3">
      The picture could not be loaded.{' '}
      <button type="button" className="link" onClick={onAgain}>
        Try again
      </button>
    </p>
  );
}

function PageChoice({ page, of, onChange }: { page: number; of: number; onChange: (page: number) => void }) {
  return (
    <>
      <Tool
        label="Page before"
        icon={<ChevronLeft size={15} />}
        disabled={page === 1}
        onClick={() => onChange(page - 1)}
      />
      <span className="quiet text-xs whitespace-nowrap">
        {page} of {of}
      </span>
      <Tool
        label="Next page"
        icon={<ChevronRight size={15} />}
        disabled={page === of}
        onClick={() => onChange(page + 1)}
      />
    </>
  );
}

interface PageWithMarksProps {
  from: Papers;
  id: string;
  page: number;
  size: { width: number; height: number };
  turns: number;
  zoom: number;
  label: string;
  marks: readonly SpotMark[];
  onFail: () => void;
}

/** One page, turned and enlarged, with a frame around each figure that was read on it. */
function PageWithMarks({ from, id, page, size, turns, zoom, label, marks, onFail }: PageWithMarksProps) {
  const { width, height } = size;
  const [w, h] = turns % 2 === 1 ? [height, width] : [width, height];
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="mx-auto block"
      style={{ width: `${ZOOMS[zoom]! * 100}%`, maxWidth: zoom === 0 ? `${w}px` : 'none' }}
      role="img"
      aria-label={label}
    >
      <g transform={turned(turns, width, height)}>
        <image href={`/api/${from}/${id}/pages/${page}`} width={width} height={height} onError={onFail} />
        {marks
          .filter((m) => m.spot.page === page)
          .map((m) => (
            <MarkBox key={m.label} mark={m} width={width} height={height} />
          ))}
      </g>
    </svg>
  );
}

function ZoomChoice({ zoom, onChange }: { zoom: number; onChange: (zoom: number) => void }) {
  return (
    <>
      <Tool label="Smaller" icon={<Minus size={15} />} disabled={zoom === 0} onClick={() => onChange(zoom - 1)} />
      <span className="quiet w-10 text-center text-xs">{Math.round(ZOOMS[zoom]! * 100)} %</span>
      <Tool
        label="Larger"
        icon={<Plus size={15} />}
        disabled={zoom === ZOOMS.length - 1}
        onClick={() => onChange(zoom + 1)}
      />
    </>
  );
}

/** The page that is looked at: the one chosen, until another figure is in focus, whose page is then shown. */
function usePage(count: number, wanted: number | null): [number, (page: number) => void] {
  const [chosen, setChosen] = useState<number | null>(null);
  const [seen, setSeen] = useState(wanted);
  if (wanted !== seen) {
    setSeen(wanted);
    setChosen(null);
  }
  return [Math.min(count, chosen ?? wanted ?? 1), setChosen];
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
      className={mark.part ? `spot spot-${mark.part}` : mark.focus ? 'spot spot-focus' : 'spot'}
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
