/** Every command: what it does, where, and its default key; "" is none. The command finder lists those without a key too. */
export const COMMANDS = {
  finder: { label: "Find a command, a slide or a place by its name", place: "Everywhere", key: "Ctrl+K" },
  undo: { label: "Undo the last act", place: "Everywhere", key: "Ctrl+Z" },
  redo: { label: "Redo", place: "Everywhere", key: "Ctrl+Shift+Z" },
  keys: { label: "Show all keys, and change them", place: "Everywhere", key: "?" },
  design: { label: "Choose the design, fonts and colours of the deck", place: "Everywhere", key: "" },
  deckSettings: {
    label: "Page, title, author, language, and the lines on every slide",
    place: "Everywhere",
    key: "",
  },
  check: { label: "Show what could be better for the audience, slide by slide", place: "Everywhere", key: "" },
  comments: { label: "Show all comments of the deck", place: "Everywhere", key: "" },
  newSlide: { label: "New slide after the selected one", place: "Everywhere", key: "N" },
  newDeck: { label: "New deck from an outline, a text, or nothing", place: "Everywhere", key: "" },
  appearance: { label: "Change between light and dark", place: "Everywhere", key: "" },
  moveUp: { label: "Move the selected slides one place up", place: "Arrange", key: "Alt+ArrowUp" },
  moveDown: { label: "Move the selected slides one place down", place: "Arrange", key: "Alt+ArrowDown" },
  nest: { label: "Make details of the slide before", place: "Arrange", key: "Alt+ArrowRight" },
  unnest: { label: "Move the selected slides one level out", place: "Arrange", key: "Alt+ArrowLeft" },
  moveTo: { label: "Move to a place that you name", place: "Arrange", key: "M" },
  nameSection: { label: "Name a section that starts with the selected slide", place: "Arrange", key: "Shift+B" },
  section: { label: "Begin a section before the selected slides", place: "Arrange", key: "B" },
  menu: { label: "Make a contents slide of the selected slides, with links back", place: "Arrange", key: "L" },
  search: { label: "Select slides by their words", place: "Arrange", key: "/" },
  skeleton: { label: "Put a skeleton on the selected slides", place: "Arrange", key: "S" },
  duplicate: { label: "Duplicate the selected slides", place: "Arrange", key: "D" },
  hide: { label: "Hide or show the selected slides", place: "Arrange", key: "H" },
  delete: { label: "Delete the selected slides", place: "Arrange", key: "Delete" },
  zoomIn: { label: "Larger", place: "Arrange", key: "+" },
  zoomOut: { label: "Smaller", place: "Arrange", key: "-" },
  duplicateSlide: { label: "Duplicate this slide", place: "Refine", key: "Shift+D" },
  deleteSlide: { label: "Delete this slide", place: "Refine", key: "Shift+Delete" },
  nextSlide: { label: "Next slide", place: "Refine", key: "PageDown" },
  previousSlide: { label: "Slide before", place: "Refine", key: "PageUp" },
  slideStrip: { label: "Show or hide the slides beside the slide", place: "Refine", key: "S" },
  comment: { label: "Comment on the slide, or on what is selected", place: "Refine", key: "C" },
  removeElement: { label: "Delete the selected elements", place: "Refine", key: "Delete" },
  duplicateElement: { label: "Duplicate the selected elements", place: "Refine", key: "D" },
  front: { label: "Bring the selected elements to the front", place: "Refine", key: "F" },
  back: { label: "Put the selected elements to the back", place: "Refine", key: "B" },
  group: { label: "Make the selected elements a group", place: "Refine", key: "G" },
  ungroup: { label: "Ungroup", place: "Refine", key: "Shift+G" },
  beginSlide: { label: "Begin a slide at this line", place: "Write", key: "Ctrl+Enter" },
  joinSlide: { label: "Join with the slide before", place: "Write", key: "Ctrl+Shift+Enter" },
  find: { label: "Find and replace", place: "Write", key: "Ctrl+F" },
  next: { label: "Next on the main line", place: "Speak", key: "ArrowRight" },
  previous: { label: "Back", place: "Speak", key: "ArrowLeft" },
  deeper: { label: "Into the details", place: "Speak", key: "ArrowDown" },
  shallower: { label: "Back to the main slide", place: "Speak", key: "ArrowUp" },
  first: { label: "To the first slide", place: "Speak", key: "Home" },
  last: { label: "To the last slide", place: "Speak", key: "End" },
  dark: { label: "Blank screen", place: "Speak", key: "B" },
  overview: { label: "Show all slides, to go to one", place: "Speak", key: "O" },
  pointer: { label: "Point at the slide in the hall with the mouse", place: "Speak", key: "L" },
  pen: { label: "Draw on the slide in the hall; gone with the slide", place: "Speak", key: "D" },
  present: { label: "Present on this screen", place: "Speak", key: "F" },
  play: { label: "Play or stop the film or sound on the slide", place: "Speak", key: "P" },
} as const;

export type CommandName = keyof typeof COMMANDS;
const STORE = "unitext:keys";

function stored(): Partial<Record<CommandName, string>> {
  try {
    return JSON.parse(localStorage.getItem(STORE) ?? "{}");
  } catch {
    return {};
  }
}

let changed = stored();
const listeners = new Set<() => void>();

/** Returns the key of a command: the person's own, or the usual one. */
export function keyOf(name: CommandName): string {
  return changed[name] ?? COMMANDS[name].key;
}

/** Sets the key of a command; undefined restores the usual one. */
export function setKey(name: CommandName, key: string | undefined): void {
  const { [name]: _, ...others } = changed;
  changed = key === undefined ? others : { ...others, [name]: key };
  localStorage.setItem(STORE, JSON.stringify(changed));
  for (const listener of listeners) listener();
}

/** Calls a listener when keys change. Returns the function that ends it. */
export function subscribeKeys(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
export const keysVersion = () => changed;

/** Returns the key of an event as the list shows it: `Ctrl+Shift+Z`. Ctrl stands for ⌘ as well. */
export function written(event: KeyboardEvent | React.KeyboardEvent): string | undefined {
  if (["Control", "Shift", "Alt", "Meta"].includes(event.key)) return undefined;
  const letter = event.key.length === 1 ? event.key.toUpperCase() : event.key;
  const shift = event.shiftKey && (event.key.length > 1 || /[A-Z]/.test(letter));
  return [
    event.ctrlKey || event.metaKey ? "Ctrl" : "",
    event.altKey ? "Alt" : "",
    shift ? "Shift" : "",
    letter === " " ? "Space" : letter,
  ]
    .filter(Boolean)
    .join("+");
}
