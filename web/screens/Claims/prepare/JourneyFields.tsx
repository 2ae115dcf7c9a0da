import type { LineSet } from '../../../api/drafts.ts';
import { Cell } from '../../../parts/Cell.tsx';
import { readTyped } from '../../../parts/typed.ts';
import type { LineRowProps } from './lineRow.types.ts';

type Journey = NonNullable<LineSet['journey']>;

/** Vehicle, distance and passengers of a journey; what it comes to is computed. */
export function JourneyFields({ line, row, draft, chart }: Pick<LineRowProps, 'line' | 'row' | 'draft' | 'chart'>) {
  const { before, ...known } = line.journey ?? { before: null };
  const journey: Partial<Journey> = known;
  const vehicles = chart?.vehicles ?? [];
  const save = (set: Partial<Journey>, done?: (error: Error | null) => void) => {
    const next = { vehicle: vehicles[0] ?? 'car', unit: 'km' as const, ...journey, ...set };
    draft.editLine(line.id, { journey: { distance: '0', ...next } }, done);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span className="w-24">
        <Cell
          label={`Distance of line ${line.id}`}
          row={row}
          column="distance"
          align="right"
          value={journey.distance ?? ''}
          placeholder="distance"
          problemOf={(typed) => (isDistance(typed) ? null : 'A distance, such as 84.5.')}
          onSave={(typed, done) => save({ distance: readTyped(typed)! }, done)}
        />
      </span>
      <select
        className="select select-xs w-20"
        aria-label={`Unit of distance of line ${line.id}`}
        value={journey.unit ?? 'km'}
        onChange={(e) => save({ unit: e.target.value as Journey['unit'] })}
      >
        <option value="km">km</option>
        <option value="mile">miles</option>
      </select>
      <select
        className="select select-xs w-36"
        aria-label={`Vehicle of line ${line.id}`}
        value={journey.vehicle ?? vehicles[0] ?? ''}
        onChange={(e) => save({ vehicle: e.target.value })}
      >
        {vehicles.map((v) => (
          <option key={v}>{v}</option>
        ))}
      </select>
      <span className="w-28">
        <Cell
          label={`Passengers of line ${line.id}`}
          row={row}
          column="passengers"
          align="right"
          value={journey.passengers ? String(journey.passengers) : ''}
          placeholder="passengers"
          problemOf={(typed) => (/^\d{0,2}$/.test(typed.trim()) ? null : 'A whole number.')}
          onSave={(typed, done) => save({ passengers: typed.trim() ? Number(typed) : null }, done)}
        />
      </span>
      {before && before !== '0' && (
        <span className="quiet text-sm">
          {before} {journey.unit} before it this year
        </span>
      )}
    </div>
  );
}

function isDistance(typed: string): boolean {
  const read = readTyped(typed);
  return read !== null && !read.startsWith('-');
}
