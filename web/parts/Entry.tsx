import { DayField } from './days/DayField.tsx';

interface EntryProps {
  label: string;
  placeholder?: string;
  value: string;
  onChange: (value: string) => void;
}

/** A labelled entry of a dialog that begins something. */
export const Entry = ({ label, placeholder, value, onChange }: EntryProps) => (
  <label className="mt-2 block">
    <span className="mb-1 block font-medium">{label}</span>
    <input
      type="text"
      className="input w-full"
      placeholder={placeholder}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  </label>
);

/** A labelled day of such a dialog. */
export const DayEntry = ({ label, value, other, onChange }: Omit<EntryProps, 'placeholder'> & { other?: string }) => (
  <label className="mt-2 block">
    <span className="mb-1 block font-medium">{label}</span>
    <DayField className="input w-full" value={value} other={other} onChange={onChange} />
  </label>
);
