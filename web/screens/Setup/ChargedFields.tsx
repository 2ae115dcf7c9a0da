import { useChart } from '../../api/chart.ts';

export interface Charged {
  dimension: string;
  code: string;
  amount: string;
}
interface ChargedFieldsProps {
  charged: readonly Charged[];
  onChange: (charged: Charged[]) => void;
}

/** What is charged to which codes, in the ledger's currency. */
export function ChargedFields({ charged, onChange }: ChargedFieldsProps) {
  const values = useChart().data?.values ?? [];
  const set = (at: number, fields: Partial<Charged>) =>
    onChange(charged.map((c, i) => (i === at ? { ...c, ...fields } : c)));
  return (
    <fieldset className="mt-3">
      <legend className="font-medium">Charged to</legend>
      {charged.map((c, i) => (
        <div key={i} className="mt-1 grid grid-cols-[minmax(0,1fr)_7rem_auto] gap-2">
          <select
            className="select select-sm w-full pr-8 text-ellipsis"
            aria-label={`Code ${i + 1}`}
            value={`${c.dimension} ${c.code}`}
            onChange={(e) => {
              const [dimension = '', code = ''] = e.target.value.split(' ');
              set(i, { dimension, code });
            }}
          >
            <option value=" ">Choose a code</option>
            {values.map((v) => (
              <option key={`${v.dimension} ${v.code}`} value={`${v.dimension} ${v.code}`}>
                {v.dimension} {v.code}: {v.name}
                {v.owner ? ` (${v.owner})` : ''}
              </option>
            ))}
          </select>
          <input
            className="input input-sm text-right"
            aria-label={`Amount ${i + 1}`}
            placeholder="0.00"
            value={c.amount}
            onChange={(e) => set(i, { amount: e.target.value })}
          />
          <button
            type="button"
            className="btn btn-sm"
            aria-label={`Take code ${i + 1} off`}
            onClick={() => onChange(charged.filter((_, at) => at !== i))}
          >
            ×
          </button>
        </div>
      ))}
      <button
        type="button"
        className="btn btn-sm mt-2"
        onClick={() => onChange([...charged, { dimension: '', code: '', amount: '' }])}
      >
        Add a code
      </button>
    </fieldset>
  );
}
