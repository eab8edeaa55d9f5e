import { useRef, useState } from "react";
import { usePeople } from "./people";

/** How many names are offered. */
const MOST = 6;

interface Props {
  label: string;
  placeholder: string;
  /** What the button says. */
  act: string;
  value?: string;
  autoFocus?: boolean;
  onSend: (text: string) => void;
  onCancel?: () => void;
}

/** A field for a comment or a reply. After an @ it offers the people of the house; Ctrl+Enter sends. */
export function TextField({ label, placeholder, act, value = "", autoFocus = false, onSend, onCancel }: Props) {
  const [text, setText] = useState(value);
  const [at, setAt] = useState(0);
  const field = useRef<HTMLTextAreaElement>(null);
  const people = usePeople();
  const [, begun] = /@([^\n@]{0,40})$/.exec(text.slice(0, at)) ?? [];
  const offered =
    begun === undefined
      ? []
      : people
          .filter(({ name }) => name !== begun && name.toLowerCase().startsWith(begun.toLowerCase()))
          .slice(0, MOST);
  const mention = (name: string) => {
    const start = at - (begun?.length ?? 0);
    const next = `${text.slice(0, start)}${name} ${text.slice(at)}`;
    setText(next);
    setAt(start + name.length + 1);
    field.current?.focus();
  };
  const send = () => {
    if (!text.trim()) return;
    onSend(text.trim());
    setText("");
  };
  return (
    <form
      className="text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        send();
      }}
    >
      <textarea
        ref={field}
        aria-label={label}
        placeholder={placeholder}
        autoFocus={autoFocus}
        rows={2}
        maxLength={20000}
        className="textarea textarea-sm w-full"
        value={text}
        onChange={({ target }) => {
          setText(target.value);
          setAt(target.selectionStart);
        }}
        onSelect={({ currentTarget }) => setAt(currentTarget.selectionStart)}
        onKeyDown={(event) => {
          if (event.key === "Enter" && (event.ctrlKey || event.metaKey)) {
            event.preventDefault();
            send();
          }
          if (event.key === "Escape") onCancel?.();
          event.stopPropagation();
        }}
      />
      {offered.length > 0 && (
        <ul className="flex flex-wrap gap-1" aria-label="People to mention">
          {offered.map(({ id, name }) => (
            <li key={id}>
              <button type="button" className="btn btn-xs" onClick={() => mention(name)}>
                @{name}
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="mt-1 flex gap-1">
        <button type="submit" className="btn btn-primary btn-sm" disabled={!text.trim()} title={`${act} (Ctrl+Enter)`}>
          {act}
        </button>
        {onCancel && (
          <button type="button" className="btn btn-ghost btn-sm" onClick={onCancel}>
            Cancel
          </button>
        )}
      </div>
    </form>
  );
}
