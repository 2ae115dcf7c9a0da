import { usePayees } from '../api/chart.ts';
import { useSession } from '../api/session.ts';

interface PayeeChoiceProps {
  value: string;
  onChange: (person: string) => void;
}

/** Whose record it is, for somebody who prepares for others; for everybody else it is their own, and nothing is asked. */
export function PayeeChoice({ value, onChange }: PayeeChoiceProps) {
  const person = useSession().data?.person;
  const prepares = person?.roles.includes('preparer') ?? false;
  const { data } = usePayees(prepares);
  if (!prepares) return null;
  return (
    <label className="mt-2 block">
      <span className="mb-1 block font-medium">For</span>
      <select className="select w-full" aria-label="For whom" value={value} onChange={(e) => onChange(e.target.value)}>
        {(data?.people ?? []).map((p) => (
          <option key={p.id} value={p.id}>
            {p.id === person?.id ? `${p.name} (yourself)` : p.name}
          </option>
        ))}
      </select>
    </label>
  );
}
