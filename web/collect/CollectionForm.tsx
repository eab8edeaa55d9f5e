import { type CollectionAsked, HAND_IN_FORMATS, type NamePart } from "@unitext/server/api";
import { Plus, X } from "lucide-react";
import { useState } from "react";

/** Returns a moment as a field for date and time has it, in the time of this browser. */
const fieldOf = (moment: string): string => {
  const at = new Date(moment);
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};

const SCHEME: NamePart[] = [
  { label: "Class", kind: "text" },
  { label: "Number", kind: "number" },
  { label: "Surname", kind: "text" },
];
/** The formats that are offered first: presentations. */
const USUAL: CollectionAsked["formats"] = ["pptx", "odp"];

/** What a collection asks for: a title, the parts of the names, formats, a due date, and the names that are expected. */
export function CollectionForm({
  terms,
  act,
  onCancel,
  onSend,
}: {
  terms?: CollectionAsked;
  act: string;
  onCancel: () => void;
  onSend: (terms: CollectionAsked) => Promise<void>;
}) {
  const [title, setTitle] = useState(terms?.title ?? "");
  const [parts, setParts] = useState<readonly NamePart[]>(terms?.parts ?? SCHEME);
  const [formats, setFormats] = useState<CollectionAsked["formats"]>(terms?.formats ?? USUAL);
  const [due, setDue] = useState(terms?.dueAt ? fieldOf(terms.dueAt) : "");
  const [expected, setExpected] = useState(terms?.expected.join("\n") ?? "");
  const [sending, setSending] = useState(false);
  const example = parts.map(({ label, kind }) => (kind === "number" ? "07" : label)).join("-");
  const send = async () => {
    setSending(true);
    await onSend({
      title: title.trim(),
      parts: parts.map(({ label, kind }) => ({ label: label.trim(), kind })),
      formats,
      dueAt: due ? new Date(due).toISOString() : null,
      expected: expected
        .split("\n")
        .map((line) => line.trim())
        .filter(Boolean),
    });
    setSending(false);
  };
  return (
    <form
      className="hairline mb-4 flex flex-col gap-4 border p-4 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <div className="flex flex-wrap gap-4">
        <label className="flex-1 basis-64">
          Title
          <input
            required
            maxLength={200}
            className="input input-sm mt-1 flex w-full"
            value={title}
            onChange={({ target }) => setTitle(target.value)}
          />
        </label>
        <label>
          Due (empty: whenever)
          <input
            type="datetime-local"
            className="input input-sm mt-1 flex w-56"
            value={due}
            onChange={({ target }) => setDue(target.value)}
          />
        </label>
      </div>
      <fieldset>
        <legend className="mb-1">
          Names have these parts, as in <strong className="font-mono">{example}</strong>
        </legend>
        <div className="flex flex-wrap gap-2">
          {parts.map((part, nth) => (
            <span key={nth} className="join">
              <input
                required
                aria-label={`Part ${nth + 1} of the names`}
                maxLength={40}
                className="input input-sm join-item w-32"
                value={part.label}
                onChange={({ target }) =>
                  setParts(parts.map((one, at) => (at === nth ? { ...one, label: target.value } : one)))
                }
              />
              <select
                aria-label={`What part ${nth + 1} may be`}
                className="select select-sm join-item w-28"
                value={part.kind}
                onChange={({ target }) =>
                  setParts(
                    parts.map((one, at) =>
                      at === nth ? { ...one, kind: target.value === "number" ? "number" : "text" } : one,
                    ),
                  )
                }
              >
                <option value="text">words</option>
                <option value="number">number</option>
              </select>
              {parts.length > 1 && (
                <button
                  type="button"
                  className="btn btn-sm join-item"
                  aria-label={`Take part ${nth + 1} out`}
                  onClick={() => setParts(parts.filter((_, at) => at !== nth))}
                >
                  <X size={14} aria-hidden="true" />
                </button>
              )}
            </span>
          ))}
          {parts.length < 6 && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => setParts([...parts, { label: `Part ${parts.length + 1}`, kind: "text" }])}
            >
              <Plus size={14} aria-hidden="true" /> Part
            </button>
          )}
        </div>
      </fieldset>
      <fieldset>
        <legend className="mb-1">Files that are taken</legend>
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {HAND_IN_FORMATS.map((format) => (
            <label key={format} className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                className="checkbox checkbox-sm"
                checked={formats.includes(format)}
                onChange={({ target }) =>
                  setFormats(target.checked ? [...formats, format] : formats.filter((one) => one !== format))
                }
              />
              .{format}
            </label>
          ))}
        </div>
      </fieldset>
      <label>
        Who is expected, a name in a line (whole names, or surnames)
        <textarea
          rows={4}
          className="textarea textarea-sm mt-1 flex w-full"
          value={expected}
          onChange={({ target }) => setExpected(target.value)}
        />
      </label>
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm" disabled={sending || formats.length === 0}>
          {act}
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}
