import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { GripVertical } from 'lucide-react';
import { Slider } from 'radix-ui';
import { Dialog } from '../Dialog.tsx';
import { NARROWEST, sized, toggled, WIDEST, type Arranged } from './arrange.ts';

interface ColumnsDialogProps<Id extends string> {
  title: string;
  /** What every column is called and how wide it usually is. */
  all: Record<Id, { name: string; width: number }>;
  /** Those that are shown, in their order. */
  columns: readonly Arranged<Id>[];
  usual: readonly Arranged<Id>[];
  onChange: (columns: readonly Arranged<Id>[]) => void;
  onClose: () => void;
}

/** Which columns a table shows a person, in which order and how wide; kept as they are changed. */
export function ColumnsDialog<Id extends string>(props: ColumnsDialogProps<Id>) {
  const { title, all, columns, usual, onChange, onClose } = props;
  const hidden = (Object.keys(all) as Id[]).filter((id) => columns.every((c) => c.id !== id));
  const sensors = useSensors(
    useSensor(PointerSensor),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const place = (id: unknown) => columns.findIndex((c) => c.id === id);
  return (
    <Dialog title={title} onClose={onClose}>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={({ active, over }) => over && onChange(arrayMove([...columns], place(active.id), place(over.id)))}
      >
        <SortableContext items={columns.map((c) => c.id)} strategy={verticalListSortingStrategy}>
          <ul aria-label="Shown">
            {columns.map((column) => (
              <ShownColumn
                key={column.id}
                column={column}
                name={all[column.id].name}
                onHide={() => onChange(toggled(columns, column))}
                onSize={(width) => onChange(sized(columns, column.id, width))}
              />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <ul aria-label="Not shown">
        {hidden.map((id) => (
          <li key={id} className="flex h-9 items-center pl-8">
            <Shows
              name={all[id].name}
              shown={false}
              onChange={() => onChange(toggled(columns, { id, width: all[id].width }))}
            />
          </li>
        ))}
      </ul>
      <button type="button" className="btn btn-sm mt-4" onClick={() => onChange(usual)}>
        As usual
      </button>
    </Dialog>
  );
}

interface ShownColumnProps {
  column: Arranged;
  name: string;
  onHide: () => void;
  onSize: (width: number) => void;
}

function ShownColumn({ column: { id, width }, name, onHide, onSize }: ShownColumnProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition } = useSortable({ id });
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Transform.toString(transform), transition }}
      className="flex h-9 items-center gap-2 bg-base-100"
    >
      <button
        ref={setActivatorNodeRef}
        type="button"
        className="quiet grid size-6 cursor-grab touch-none place-items-center"
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
      >
        <GripVertical size={15} />
      </button>
      <Shows name={name} shown onChange={onHide} />
      <Slider.Root
        className="slider"
        min={NARROWEST}
        max={WIDEST}
        step={0.5}
        value={[width]}
        onValueChange={([wide]) => onSize(wide!)}
      >
        <Slider.Track className="slider-track">
          <Slider.Range className="slider-range" />
        </Slider.Track>
        <Slider.Thumb className="slider-thumb" aria-label={`Width of ${name}`} aria-valuetext={`${width} letters`} />
      </Slider.Root>
    </li>
  );
}

interface ShowsProps {
  name: string;
  shown: boolean;
  onChange: () => void;
}
const Shows = ({ name, shown, onChange }: ShowsProps) => (
  <label className="flex flex-1 items-center gap-2">
    <input type="checkbox" className="checkbox checkbox-sm" checked={shown} onChange={onChange} />
    {name}
  </label>
);
