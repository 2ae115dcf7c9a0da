interface EntryProps {
  label: string;
  type?: 'text' | 'date';
  placeholder?: string;
  value: string;
  onChange: (value: string) => void;
}

/** A labelled entry of a dialog that begins something. */
export const Entry = ({ label, type = 'text', placeholder, value, onChange }: EntryProps) => (
  <label className="mt-2 block">
    <span className="mb-1 block font-medium">{label}</span>
    <input
      type={type}
      className="input w-full"
      placeholder={placeholder}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  </label>
);
