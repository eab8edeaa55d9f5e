import { nameOf } from "@unitext/core/model";
import { Command } from "cmdk";
import { useEffect, useId, useRef, type ReactNode } from "react";
import { useNavigate } from "react-router";
import { useOpenDeck } from "../deck/DeckContext";
import { activeCommands, COMMANDS, type CommandName, keyOf } from "../keys";
import { PLACES } from "./places";

/** How many slides are listed at once; typing narrows them down. */
const SLIDES = 500;

/** Returns how well an entry fits what was typed: it has all of the words, best at the beginnings of its own. */
function fits(entry: string, typed: string): number {
  const text = ` ${entry.toLowerCase()}`;
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  if (!words.every((word) => text.includes(word))) return 0;
  return words.every((word) => text.includes(` ${word}`)) ? 1 : 0.5;
}

/** Finds what can be done here, places and slides by their words, and does it or goes there. */
export function CommandFinder({ onClose }: { onClose: () => void }) {
  const open = useOpenDeck();
  const navigate = useNavigate();
  const dialog = useRef<HTMLDialogElement>(null);
  const title = useId();
  // What can be done is what could be done before this dialog was opened.
  const acts = useRef(activeCommands()).current;
  useEffect(() => {
    dialog.current?.showModal();
    dialog.current?.querySelector("input")?.focus();
  }, []);
  const run = (act: () => void) => {
    dialog.current?.close();
    // The act may open a dialog of its own or move the focus: it runs once this one is gone.
    requestAnimationFrame(act);
  };
  const names = (Object.keys(COMMANDS) as CommandName[]).filter((name) => name !== "finder" && acts[name]);
  return (
    <dialog
      ref={dialog}
      className="modal items-start pt-[12vh]"
      aria-labelledby={title}
      onClose={onClose}
      onPointerDown={(event) => event.target === event.currentTarget && dialog.current?.close()}
    >
      <div className="modal-box hairline max-w-xl border p-0">
        <h2 id={title} className="sr-only">
          Find a command
        </h2>
        <Command label="Find a command" loop filter={fits}>
          <Command.Input
            placeholder={open ? "What do you want to do, or which slide?" : "What do you want to do?"}
            className="hairline w-full border-b bg-transparent px-4 py-3 outline-none"
          />
          <Command.List className="max-h-[56vh] overflow-y-auto p-2" data-commands>
            <Command.Empty className="quiet px-2 py-3 text-sm">Nothing here has these words.</Command.Empty>
            <Group heading="Here">
              {names.map((name) => (
                <Entry
                  key={name}
                  value={COMMANDS[name].label}
                  label={COMMANDS[name].label}
                  keys={keyOf(name)}
                  onSelect={() => run(() => acts[name]?.())}
                />
              ))}
            </Group>
            <Group heading="Places">
              <Entry value="Go to Desk" label="Desk" onSelect={() => run(() => navigate("/"))} />
              {open &&
                PLACES.map(({ path, label, does }) => (
                  <Entry
                    key={path}
                    value={`Go to ${label} ${does}`}
                    label={`${label}: ${does.toLowerCase()}`}
                    onSelect={() => run(() => navigate(`/decks/${open.deck.id}/${path}`))}
                  />
                ))}
            </Group>
            {open && (
              <Group heading="Slides">
                {open.deck.slides.slice(0, SLIDES).map((slide, nth) => (
                  <Entry
                    key={slide.id}
                    value={`Slide ${nth + 1} ${nameOf(slide)}`}
                    label={`${nth + 1}. ${nameOf(slide) || "(empty)"}`}
                    onSelect={() =>
                      run(() => {
                        open.select([slide.id]);
                        navigate(`/decks/${open.deck.id}/refine/${slide.id}`);
                      })
                    }
                  />
                ))}
              </Group>
            )}
          </Command.List>
        </Command>
      </div>
    </dialog>
  );
}

function Group({ heading, children }: { heading: string; children: ReactNode }) {
  return (
    <Command.Group
      heading={heading}
      className="[&_[cmdk-group-heading]]:px-2 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:font-semibold"
    >
      {children}
    </Command.Group>
  );
}

function Entry({
  value,
  label,
  keys = "",
  onSelect,
}: {
  value: string;
  label: string;
  keys?: string;
  onSelect: () => void;
}) {
  return (
    <Command.Item
      value={value}
      onSelect={onSelect}
      className="flex cursor-pointer items-center gap-3 rounded px-2 py-1.5 text-sm data-[selected=true]:bg-primary data-[selected=true]:text-primary-content"
    >
      <span className="min-w-0 flex-1 truncate">{label}</span>
      {keys && <kbd className="font-mono text-xs">{keys}</kbd>}
    </Command.Item>
  );
}
