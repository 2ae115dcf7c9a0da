import { ChevronLeft, ChevronRight, Maximize, Minus, Plus, RotateCw } from 'lucide-react';
import { useEffect, useState } from 'react';
import { TransformComponent, TransformWrapper, useControls, useTransformComponent } from 'react-zoom-pan-pinch';
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

const SMALLEST = 0.25;
const LARGEST = 8;

/**
 * The pages of a receipt, enlarged by wheel, pinch or buttons, dragged, turned, with marks where figures were read; the same for
 * claimant, approver and reviewer. A mark in focus brings its page, and its place on it.
 */
export function ReceiptViewer({ from = 'receipts', id, pages, label, marks = [], onTurn }: ReceiptViewerProps) {
  const [turned, setTurned] = useState<Readonly<Record<number, number>>>({});
  const [failed, setFailed] = useState(false);
  const focus = marks.find((m) => m.focus);
  const [page, setChosen] = usePage(pages.length, focus?.spot.page ?? null);
  const size = pages[page - 1] ?? { width: 1, height: 1, turns: 0 };
  const turns = turned[page] ?? size.turns;
  const turn = () => {
    const next = (turns + 1) % 4;
    setTurned({ ...turned, [page]: next });
    onTurn?.(page, next);
  };
  return (
    <figure className="flex min-h-72 flex-1 flex-col border-t border-base-300">
      <TransformWrapper key={`${id} ${page}`} minScale={SMALLEST} maxScale={LARGEST} keyboard={{ disabled: false }}>
        <figcaption className="flex items-center gap-1 px-4 py-1 text-sm">
          <span className="mr-auto truncate">{label}</span>
          {pages.length > 1 && <PageChoice page={page} of={pages.length} onChange={setChosen} />}
          <ZoomChoice />
          <Tool label="Turn" icon={<RotateCw size={15} />} onClick={turn} />
        </figcaption>
        {failed ? (
          <NoPicture onAgain={() => setFailed(false)} />
        ) : (
          <TransformComponent
            wrapperClass="paper"
            contentClass="paper-page"
            wrapperProps={{ tabIndex: 0, role: 'group', 'aria-label': `${label}, arrows move it, + and - zoom` }}
          >
            <ShowFocus mark={focus} page={page} />
            <PageWithMarks
              from={from}
              id={id}
              page={page}
              size={size}
              turns={turns}
              label={label}
              marks={marks}
              onFail={() => setFailed(true)}
            />
          </TransformComponent>
        )}
      </TransformWrapper>
    </figure>
  );
}

/** Moves the paper, and nothing around it, to the figure that is looked at; how large it is stays. */
function ShowFocus({ mark, page }: { mark: SpotMark | undefined; page: number }) {
  const { zoomToElement, instance } = useControls();
  const at = mark ? `${mark.spot.page} ${mark.spot.box.x} ${mark.spot.box.y}` : null;
  useEffect(() => {
    const spot = instance.contentComponent?.querySelector<HTMLElement>('.spot-focus');
    if (at !== null && spot) void zoomToElement(spot, { scale: instance.state.scale, animationTime: 0 });
  }, [at, page, zoomToElement, instance]);
  return null;
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
  label: string;
  marks: readonly SpotMark[];
  onFail: () => void;
}

/** One page, turned, with a frame around each figure that was read on it. */
function PageWithMarks({ from, id, page, size, turns, label, marks, onFail }: PageWithMarksProps) {
  const { width, height } = size;
  const [w, h] = turns % 2 === 1 ? [height, width] : [width, height];
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="mx-auto block"
      style={{ width: '100%', maxWidth: `${w}px` }}
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

function ZoomChoice() {
  const { zoomIn, zoomOut, fitToView } = useControls();
  const scale = useTransformComponent(({ state }) => state.scale);
  return (
    <>
      <Tool label="Smaller" icon={<Minus size={15} />} disabled={scale <= SMALLEST} onClick={() => void zoomOut()} />
      <span className="quiet w-10 text-center text-xs">{Math.round(scale * 100)} %</span>
      <Tool label="Larger" icon={<Plus size={15} />} disabled={scale >= LARGEST} onClick={() => void zoomIn()} />
      <Tool label="Whole page" icon={<Maximize size={15} />} onClick={() => void fitToView()} />
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
