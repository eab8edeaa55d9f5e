/** A field for a colour `#rrggbb`; with `onNone`, it may also be none. */
export function Colour({
  label,
  value,
  onSet,
  onNone,
}: {
  label: string;
  value: string | undefined;
  onSet: (colour: string) => void;
  onNone?: () => void;
}) {
  const id = `colour-${label}`;
  return (
    <div className="mb-1 flex items-center gap-2">
      <label htmlFor={id} className="flex-1">
        {label}
      </label>
      <input
        id={id}
        type="color"
        className="hairline h-7 w-10 border"
        value={value ?? "#ffffff"}
        onChange={({ target }) => onSet(target.value)}
      />
      {onNone && (
        <button type="button" className="btn btn-xs" disabled={value === undefined} onClick={onNone}>
          None<span className="sr-only">, {label.toLowerCase()}</span>
        </button>
      )}
    </div>
  );
}
