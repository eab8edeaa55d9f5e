import { type EditorState, type Extension, type Range, StateField } from "@codemirror/state";
import { Decoration, type DecorationSet, EditorView, WidgetType } from "@codemirror/view";

/** A stretch of the text that is shown as a chip as long as the cursor is elsewhere. */
interface Stretch {
  from: number;
  to: number;
  label: string;
  /** Whether it is of whole lines that are hidden together. */
  block: boolean;
}

const DIRECTIVE = /^(:{2,})\s*([A-Za-z][\w-]*)?(\{[^}]*\})?\s*$/;
const NAMES: Readonly<Record<string, string>> = {
  slide: "Slide",
  join: "Same slide",
  notes: "Notes",
  left: "Left column",
  middle: "Middle column",
  right: "Right column",
};

/** Returns the label of a directive: its name and values in words, without ids and without where its cells come from. */
function labelOf(name: string | undefined, attributes: string): string {
  if (!name) return "end";
  const values = attributes
    .replace(/[{}]/g, " ")
    .split(/\s+/)
    .filter((part) => part && !part.startsWith("#") && !/^(?:source|range|version|taken|mode)=/.test(part))
    .map((part) => part.replace(/^\./, "").replace("=", ": ").replaceAll('"', ""));
  const linked = /\bsource=/.test(attributes) ? ["linked"] : [];
  return [NAMES[name] ?? name, ...linked, ...values].join(" · ");
}

/** Returns the front matter at the head of a text; undefined where there is none. */
function frontMatter({ doc }: EditorState): Stretch | undefined {
  if (doc.line(1).text !== "---") return undefined;
  let title = "";
  for (let number = 2; number <= Math.min(doc.lines, 60); number++) {
    const { text, to } = doc.line(number);
    if (text === "---") return { from: 0, to, label: `About the deck${title ? `: ${title}` : ""}`, block: true };
    title ||= /^title:\s*(.+)$/.exec(text)?.[1]?.replace(/^["']|["']$/g, "") ?? "";
  }
  return undefined;
}

function stretchesOf(state: EditorState): Stretch[] {
  const found: Stretch[] = [];
  const front = frontMatter(state);
  if (front) found.push(front);
  let code = false;
  for (let number = front ? state.doc.lineAt(front.to).number + 1 : 1; number <= state.doc.lines; number++) {
    const { from, to, text } = state.doc.line(number);
    if (/^(```|~~~)/.test(text)) code = !code;
    const directive = code || !text.startsWith("::") ? null : DIRECTIVE.exec(text);
    if (directive) found.push({ from, to, label: labelOf(directive[2], directive[3] ?? ""), block: false });
  }
  return found;
}

class Chip extends WidgetType {
  constructor(private readonly label: string) {
    super();
  }
  override eq(other: Chip) {
    return other.label === this.label;
  }
  toDOM(view: EditorView) {
    const chip = document.createElement("button");
    chip.type = "button";
    chip.tabIndex = -1;
    chip.className = "cm-chip";
    chip.textContent = this.label;
    chip.title = "Press to change it";
    chip.onmousedown = (event) => {
      event.preventDefault();
      view.dispatch({ selection: { anchor: view.posAtDOM(chip) } });
      view.focus();
    };
    return chip;
  }
  override ignoreEvent() {
    return true;
  }
}

/** Decorates the stretches in which no cursor is. */
function chipsOf(state: EditorState, stretches: readonly Stretch[]): DecorationSet {
  const ranges: Range<Decoration>[] = [];
  for (const { from, to, label, block } of stretches) {
    if (state.selection.ranges.some((range) => range.from <= to && range.to >= from)) continue;
    ranges.push(Decoration.replace({ widget: new Chip(label), block }).range(from, to));
  }
  return Decoration.set(ranges);
}

const chipField = StateField.define<{ stretches: readonly Stretch[]; chips: DecorationSet }>({
  create(state) {
    const stretches = stretchesOf(state);
    return { stretches, chips: chipsOf(state, stretches) };
  },
  update(value, { docChanged, selection, state }) {
    if (!docChanged && !selection) return value;
    const stretches = docChanged ? stretchesOf(state) : value.stretches;
    return { stretches, chips: chipsOf(state, stretches) };
  },
  provide: (field) => EditorView.decorations.from(field, ({ chips }) => chips),
});

/**
 * Shows front matter and directives as small chips, so that a text looks like text. A chip opens when it is pressed, or
 * when the cursor comes to its place.
 */
export function chips(): Extension {
  return [
    chipField,
    EditorView.baseTheme({
      ".cm-chip": {
        font: "inherit",
        fontFamily: "var(--font-sans)",
        fontSize: "0.8em",
        lineHeight: "1.5",
        padding: "0 0.6em",
        borderRadius: "0.75em",
        border: "1px solid var(--color-base-300)",
        background: "var(--color-base-200)",
        color: "inherit",
        cursor: "pointer",
      },
    }),
  ];
}

/** Returns where the cursor is at first: after the front matter, so that this is folded. */
export function firstPosition(state: EditorState): number {
  const front = frontMatter(state);
  return front ? Math.min(state.doc.length, front.to + 1) : 0;
}
