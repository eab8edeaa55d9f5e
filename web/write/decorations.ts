import { type EditorState, type RangeSet, RangeSetBuilder, StateEffect, StateField } from "@codemirror/state";
import { Decoration, type DecorationSet, EditorView, GutterMarker, WidgetType } from "@codemirror/view";
import type { Lines } from "@unitext/core/text";

export const LINE = 27;

/** Space below the lines of a slide, so that the slide beside them has its height. */
class Room extends WidgetType {
  constructor(readonly height: number) {
    super();
  }
  override eq(other: Room): boolean {
    return other.height === this.height;
  }
  toDOM(): HTMLElement {
    const room = document.createElement("div");
    room.style.height = `${this.height}px`;
    room.setAttribute("aria-hidden", "true");
    return room;
  }
  override get estimatedHeight(): number {
    return this.height;
  }
}

interface Layout {
  segments: readonly Lines[];
  chosen: Lines | undefined;
  over: readonly number[];
  problems: readonly number[];
  room: number;
}

export const setLayout = StateEffect.define<Layout>();

export const setLanding = StateEffect.define<number | undefined>();

/** The slides that start at a line, with the number of the first. */
interface Beginning {
  from: number;
  first: number;
  count: number;
}

function beginnings(segments: readonly Lines[]): Beginning[] {
  const list: Beginning[] = [];
  segments.forEach(({ from }, nth) => {
    const last = list.at(-1);
    if (last && last.from >= from) last.count += 1;
    else list.push({ from, first: nth + 1, count: 1 });
  });
  return list;
}

/** The mark in the margin where slides start; it can be dragged. */
class BreakMark extends GutterMarker {
  constructor(readonly beginning: Beginning) {
    super();
  }
  override eq(other: BreakMark): boolean {
    return other.beginning.first === this.beginning.first && other.beginning.count === this.beginning.count;
  }
  override toDOM(): HTMLElement {
    const { first, count } = this.beginning;
    const mark = document.createElement("div");
    mark.className = "cm-break-mark";
    mark.textContent = count > 1 ? `${first}–${first + count - 1}` : String(first);
    mark.title = `Slide ${first} starts here. Drag to another line to move its start.`;
    return mark;
  }
}

export const breakField = StateField.define<RangeSet<GutterMarker>>({
  create: () => new RangeSetBuilder<GutterMarker>().finish(),
  update(value, transaction) {
    for (const effect of transaction.effects) {
      if (!effect.is(setLayout)) continue;
      const builder = new RangeSetBuilder<GutterMarker>();
      for (const beginning of beginnings(effect.value.segments))
        if (beginning.from <= transaction.state.doc.lines)
          builder.add(
            transaction.state.doc.line(beginning.from).from,
            transaction.state.doc.line(beginning.from).from,
            new BreakMark(beginning),
          );
      return builder.finish();
    }
    return value.map(transaction.changes);
  },
});

const LANDING = Decoration.line({ class: "cm-landing" });

export const landingField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setLanding))
        return effect.value === undefined
          ? Decoration.none
          : Decoration.set(LANDING.range(transaction.state.doc.line(effect.value).from));
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});

const OVER = Decoration.line({ class: "cm-over" });

const NOTED = Decoration.line({ class: "cm-noted" });

const CHOSEN = Decoration.line({ class: "cm-chosen" });

function decorations(state: EditorState, { segments, chosen, over, problems, room }: Layout): DecorationSet {
  const { doc } = state;
  const marks: { at: number; order: number; decoration: Decoration }[] = [];
  for (const line of over) if (line <= doc.lines) marks.push({ at: doc.line(line).from, order: 0, decoration: OVER });
  for (const line of problems)
    if (line <= doc.lines) marks.push({ at: doc.line(line).from, order: 0, decoration: NOTED });
  if (chosen)
    for (let line = chosen.from; line <= Math.min(chosen.to, doc.lines, chosen.from + 400); line++)
      marks.push({ at: doc.line(line).from, order: 0, decoration: CHOSEN });
  const begin = beginnings(segments);
  begin.forEach(({ from, count }, nth) => {
    const end = Math.min(doc.lines, (begin[nth + 1]?.from ?? doc.lines + 1) - 1);
    const height = room * count - (end - from + 1) * LINE;
    if (height > 0 && end >= from)
      marks.push({
        at: doc.line(end).to,
        order: 1,
        decoration: Decoration.widget({ widget: new Room(height), block: true, side: 1 }),
      });
  });
  marks.sort((a, b) => a.at - b.at || a.order - b.order);
  const builder = new RangeSetBuilder<Decoration>();
  for (const { at, decoration } of marks) builder.add(at, at, decoration);
  return builder.finish();
}

export const layoutField = StateField.define<DecorationSet>({
  create: () => Decoration.none,
  update(value, transaction) {
    for (const effect of transaction.effects)
      if (effect.is(setLayout)) return decorations(transaction.state, effect.value);
    return value.map(transaction.changes);
  },
  provide: (field) => EditorView.decorations.from(field),
});
