/** The field for the name of an account, which has the focus when the page opens. */
export function NameField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (name: string) => void;
}) {
  return (
    <label className="mb-3 block text-sm">
      {label}
      <input
        required
        autoFocus
        maxLength={100}
        autoComplete="username"
        className="input mt-1 w-full"
        value={value}
        onChange={({ target }) => onChange(target.value)}
      />
    </label>
  );
}
