import { ChevronDown, ChevronUp } from 'lucide-react';
import type { DeskColumn } from '../../../contract/desk.ts';
import { Dialog } from '../../parts/Dialog.tsx';
import { IconButton } from '../../parts/IconButton.tsx';
import { COLUMNS, moved, NARROWEST, sized, toggled, USUAL, WIDEST } from './columns.tsx';

interface ColumnsProps {
  columns: readonly DeskColumn[];
  onChange: (columns: readonly DeskColumn[]) => void;
  onClose: () => void;
}

/** Which columns the Desk shows this person, in which order and how wide; kept as they are changed. */
export function ColumnsDialog({ columns, onChange, onClose }: ColumnsProps) {
  const shown = columns.map((c) => c.id);
  const hidden = (Object.keys(COLUMNS) as DeskColumn['id'][]).filter((id) => !shown.includes(id));
  return (
    <Dialog title="Columns of the Desk" onClose={onClose}>
      <ul className="grid gap-1">
        {[...shown, ...hidden].map((id) => {
          const column = columns.find((c) => c.id === id);
          const { name } = COLUMNS[id];
          return (
            <li key={id} className="flex items-center gap-2">
              <label className="flex flex-1 items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-sm"
                  checked={column !== undefined}
                  onChange={() => onChange(toggled(columns, id))}
                />
                {name}
              </label>
              {column && (
                <>
                  <input
                    type="range"
                    className="range range-xs w-32"
                    aria-label={`Width of ${name}`}
                    min={NARROWEST}
                    max={WIDEST}
                    step={0.5}
                    value={column.width}
                    onChange={(e) => onChange(sized(columns, id, Number(e.target.value)))}
                  />
                  <IconButton
                    label={`${name} to the left`}
                    icon={<ChevronUp size={15} />}
                    onClick={() => onChange(moved(columns, id, -1))}
                  />
                  <IconButton
                    label={`${name} to the right`}
                    icon={<ChevronDown size={15} />}
                    onClick={() => onChange(moved(columns, id, 1))}
                  />
                </>
              )}
            </li>
          );
        })}
      </ul>
      <button type="button" className="btn btn-sm mt-4" onClick={() => onChange(USUAL)}>
        As usual
      </button>
    </Dialog>
  );
}
