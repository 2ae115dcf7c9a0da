/** Somebody or something by name. */
export interface Named {
  id: string;
  name: string;
}

interface ChoiceProps {
  label: string;
  value: string;
  options: readonly Named[];
  onChange: (id: string) => void;
}

/** One of some named things, under its label. */
export const Choice = ({ label, value, options, onChange }: ChoiceProps) => (
  <label className="mt-2 block">
    <span className="mb-1 block font-medium">{label}</span>
    <select className="select w-full pr-9 text-ellipsis" value={value} onChange={(e) => onChange(e.target.value)}>
      {options.map((o) => (
        <option key={o.id} value={o.id}>
          {o.name}
        </option>
      ))}
    </select>
  </label>
);
