import { must } from "@unitext/core/model";
import { useEffect, useRef, useState, useSyncExternalStore } from "react";
import { COMMANDS, type CommandName, keyOf, keysVersion, setKey, subscribeKeys, written } from "./commands";

/** The list of keys, each of which can be changed: choose a row, then press the new key. */
export function KeyList({ open, onClose }: { open: boolean; onClose: () => void }) {
  useSyncExternalStore(subscribeKeys, keysVersion);
  const dialog = useRef<HTMLDialogElement>(null);
  const [asking, setAsking] = useState<CommandName>();
  useEffect(() => {
    if (open) dialog.current?.showModal();
    else dialog.current?.close();
  }, [open]);
  const names = Object.keys(COMMANDS) as CommandName[];
  const places = [...new Set(names.map((name) => COMMANDS[name].place))];
  const clash = (name: CommandName) =>
    names.find(
      (other) =>
        other !== name &&
        keyOf(other) === keyOf(name) &&
        (COMMANDS[other].place === COMMANDS[name].place || "Everywhere" === COMMANDS[other].place),
    );
  return (
    <dialog
      ref={dialog}
      className="modal"
      aria-labelledby="keys-title"
      onClose={onClose}
      onKeyDown={(event) => {
        if (!asking) return;
        event.preventDefault();
        const key = written(event);
        if (!key) return;
        if (key !== "Escape") setKey(asking, key);
        setAsking(undefined);
      }}
    >
      <div className="modal-box hairline max-w-2xl border">
        <h2 id="keys-title" className="mb-1 text-lg font-semibold">
          Keys
        </h2>
        <p className="quiet mb-4 text-sm">
          Choose a key to change it, then press the new one. Escape leaves it as it was.
        </p>
        {places.map((place) => (
          <section key={place} className="mb-4">
            <h3 className="mb-1 font-semibold">{place}</h3>
            <ul>
              {names
                .filter((name) => COMMANDS[name].place === place)
                .map((name) => (
                  <li key={name} className="hairline flex items-center gap-3 border-t py-1">
                    <span className="flex-1">{COMMANDS[name].label}</span>
                    {clash(name) && (
                      <span className="text-error text-sm">also: {COMMANDS[must(clash(name))].label}</span>
                    )}
                    <button
                      type="button"
                      className="btn btn-sm font-mono"
                      aria-label={
                        asking === name
                          ? `Press a key … for: ${COMMANDS[name].label}`
                          : `${COMMANDS[name].label}: ${keyOf(name)}. Change the key`
                      }
                      onClick={() => setAsking(name)}
                    >
                      {asking === name ? "Press a key …" : keyOf(name)}
                    </button>
                    <button
                      type="button"
                      className="btn btn-ghost btn-sm"
                      disabled={keyOf(name) === COMMANDS[name].key}
                      onClick={() => setKey(name, undefined)}
                      aria-label={`Reset to ${COMMANDS[name].key}: ${COMMANDS[name].label}`}
                    >
                      Reset
                    </button>
                  </li>
                ))}
            </ul>
          </section>
        ))}
        <div className="modal-action">
          <button type="button" className="btn btn-primary" onClick={() => dialog.current?.close()}>
            Close
          </button>
        </div>
      </div>
    </dialog>
  );
}
