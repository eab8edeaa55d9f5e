import { Dialog } from "../ui/Dialog";
import { must } from "@unitext/core/model";
import { useState, useSyncExternalStore } from "react";
import { COMMANDS, type CommandName, keyOf, keysVersion, setKey, subscribeKeys, written } from "./commands";

/** The list of keys, each of which can be changed: choose a row, then press the new key. */
export function KeyList({ onClose }: { onClose: () => void }) {
  useSyncExternalStore(subscribeKeys, keysVersion);
  const [asking, setAsking] = useState<CommandName>();
  const names = Object.keys(COMMANDS) as CommandName[];
  const places = [...new Set(names.map((name) => COMMANDS[name].place))];
  const clash = (name: CommandName) =>
    names.find(
      (other) =>
        other !== name &&
        keyOf(name) !== "" &&
        keyOf(other) === keyOf(name) &&
        (COMMANDS[other].place === COMMANDS[name].place || "Everywhere" === COMMANDS[other].place),
    );
  const onKeyDown = (event: React.KeyboardEvent) => {
    if (!asking) return;
    event.preventDefault();
    const key = written(event);
    if (!key) return;
    if (key !== "Escape") setKey(asking, key);
    setAsking(undefined);
  };
  return (
    <Dialog
      title="Keys"
      lead="Choose a key to change it, then press the new one. Escape leaves it as it was."
      width="wide"
      onClose={onClose}
      onKeyDown={onKeyDown}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Close
        </button>
      )}
    >
      {places.map((place) => (
        <section key={place} className="mb-4">
          <h3 className="mb-1 font-semibold">{place}</h3>
          <ul>
            {names
              .filter((name) => COMMANDS[name].place === place)
              .map((name) => (
                <li key={name} className="hairline flex items-center gap-3 border-t py-1">
                  <span className="flex-1">{COMMANDS[name].label}</span>
                  {clash(name) && <span className="text-error text-sm">also: {COMMANDS[must(clash(name))].label}</span>}
                  <button
                    type="button"
                    className="btn btn-sm font-mono"
                    aria-label={
                      asking === name
                        ? `Press a key … for: ${COMMANDS[name].label}`
                        : `${COMMANDS[name].label}: ${keyOf(name) || "no key"}. Change the key`
                    }
                    onClick={() => setAsking(name)}
                  >
                    {asking === name ? "Press a key …" : keyOf(name) || "no key"}
                  </button>
                  <button
                    type="button"
                    className="btn btn-ghost btn-sm"
                    disabled={keyOf(name) === COMMANDS[name].key}
                    onClick={() => setKey(name, undefined)}
                    aria-label={`Reset to ${COMMANDS[name].key || "no key"}: ${COMMANDS[name].label}`}
                  >
                    Reset
                  </button>
                </li>
              ))}
          </ul>
        </section>
      ))}
    </Dialog>
  );
}
