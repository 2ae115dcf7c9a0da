import {
  DndContext,
  DragOverlay,
  KeyboardSensor,
  MouseSensor,
  TouchSensor,
  useDraggable,
  useDroppable,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import { GripVertical } from 'lucide-react';
import { useState, type ReactNode } from 'react';
import type { PairLine, PairsView, PairWish } from '../../api/gather.ts';
import { Side } from './Side.tsx';
import { sideOf, type SideView } from './proposals.ts';

/** Drag a charge or a receipt onto a line; or choose it, then press "Pair here" at the line. */
export function PairByHand({ data, onPair }: { data: PairsView; onPair: (wish: PairWish) => void }) {
  const [held, setHeld] = useState<string | null>(null);
  const lines = data.lines.filter((l) => l.charge === null || l.receipt === null);
  const free = freeOf(data);
  if (lines.length === 0 || free.length === 0) return null;
  const pair = (key: string, line: PairLine) => {
    const [kind, id] = key.split(' ') as ['charge' | 'receipt', string];
    setHeld(null);
    onPair({ lines: [{ claim: line.claim, line: line.line }], [kind]: id });
  };
  return (
    <section className="mt-6">
      <h2 className="mb-1 font-semibold">By hand</h2>
      <p className="quiet mb-2 text-sm">
        Drag a charge or receipt onto the line it belongs to, or choose it and press “Pair here”.
      </p>
      <Dragging
        free={free}
        onDrop={(key, ref) =>
          pair(
            key,
            lines.find((l) => l.ref === ref)!,
          )
        }
      >
        <ul aria-label="Lines" className="rounded-box border border-base-300 bg-base-100">
          {lines.map((line) => (
            <DropLine
              key={line.ref}
              line={line}
              side={sideOf(data, 'line', line.ref)}
              held={held}
              onPair={() => pair(held!, line)}
            />
          ))}
        </ul>
        <FreeList free={free} held={held} onHold={setHeld} />
      </Dragging>
    </section>
  );
}

/** A receipt or charge that is on no line yet. */
interface Free {
  key: string;
  side: SideView;
}
const freeOf = (data: PairsView): Free[] => [
  ...data.receipts.map((r) => ({ key: `receipt ${r.id}`, side: sideOf(data, 'receipt', r.id) })),
  ...data.charges.map((c) => ({ key: `charge ${c.id}`, side: sideOf(data, 'charge', c.id) })),
];

interface DraggingProps {
  free: readonly Free[];
  /** What was dropped, and the line it was dropped on. */
  onDrop: (key: string, ref: string) => void;
  children: ReactNode;
}

/** Two columns between which things are dragged by mouse, finger or keyboard. */
function Dragging({ free, onDrop, children }: DraggingProps) {
  const [dragged, setDragged] = useState<string | null>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: 6 } }),
    useSensor(TouchSensor, { activationConstraint: { delay: 180, tolerance: 8 } }),
    useSensor(KeyboardSensor),
  );
  const drop = ({ active, over }: DragEndEvent) => {
    setDragged(null);
    if (over) onDrop(String(active.id), String(over.id));
  };
  const side = free.find(({ key }) => key === dragged)?.side;
  return (
    <DndContext
      sensors={sensors}
      onDragStart={({ active }) => setDragged(String(active.id))}
      onDragCancel={() => setDragged(null)}
      onDragEnd={drop}
    >
      <div className="grid gap-4 lg:grid-cols-2">{children}</div>
      <DragOverlay dropAnimation={null}>
        {side && (
          <div className="rounded-box border border-primary bg-base-100 px-3 py-2 shadow-lg">
            <Side side={side} />
          </div>
        )}
      </DragOverlay>
    </DndContext>
  );
}

interface FreeListProps {
  free: readonly Free[];
  held: string | null;
  onHold: (key: string | null) => void;
}

function FreeList({ free, held, onHold }: FreeListProps) {
  return (
    <ul
      aria-label="Receipts and charges"
      className="max-h-[28rem] overflow-auto rounded-box border border-base-300 bg-base-100"
    >
      {free.map(({ key, side }) => (
        <DragItem key={key} id={key} chosen={held === key} onChoose={() => onHold(held === key ? null : key)}>
          <Side side={side} />
        </DragItem>
      ))}
    </ul>
  );
}

function DropLine({
  line,
  side,
  held,
  onPair,
}: {
  line: PairLine;
  side: SideView;
  held: string | null;
  onPair: () => void;
}) {
  const { setNodeRef, isOver } = useDroppable({ id: line.ref });
  return (
    <li
      ref={setNodeRef}
      className={`flex items-center gap-2 border-b border-base-300 px-3 py-2 last:border-b-0 ${isOver ? 'bg-primary/15' : ''}`}
    >
      <span className="min-w-0 flex-1">
        <Side side={side} />
      </span>
      {held && (
        <button type="button" className="btn btn-xs btn-primary" onClick={onPair}>
          Pair here
        </button>
      )}
    </li>
  );
}

function DragItem({
  id,
  chosen,
  onChoose,
  children,
}: {
  id: string;
  chosen: boolean;
  onChoose: () => void;
  children: ReactNode;
}) {
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id });
  return (
    <li
      ref={setNodeRef}
      className={`flex items-center gap-2 border-b border-base-300 px-2 py-2 last:border-b-0 ${chosen ? 'bg-primary/15' : ''} ${isDragging ? 'opacity-50' : ''}`}
    >
      <button type="button" className="cursor-grab touch-none p-1" aria-label="Drag" {...listeners} {...attributes}>
        <GripVertical size={16} />
      </button>
      <span className="min-w-0 flex-1">{children}</span>
      <button type="button" className="btn btn-xs" aria-pressed={chosen} onClick={onChoose}>
        {chosen ? 'Chosen' : 'Choose'}
      </button>
    </li>
  );
}
