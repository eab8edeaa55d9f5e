import { type Editor, useEditorState } from "@tiptap/react";
import { MAX_LEVEL, SCHEMES } from "@unitext/core/model";
import {
  AlignCenter,
  AlignLeft,
  AlignRight,
  Baseline,
  Highlighter,
  IndentDecrease,
  IndentIncrease,
  List,
  Rows3,
  Subscript,
  Superscript,
} from "lucide-react";
import { useEffect, useState } from "react";
import { type MenuActs, MenuButton } from "../ui/Menu";
import { FONT_NAMES } from "../ui/fonts";
import { Tooltip } from "../ui/Tooltip";
import { runPropertiesAt, setParagraphProperties, setParagraphs, setRunProperties, shiftLevel } from "./format";
import { ToolButton } from "./ToolButton";

/** How a text looks where its words set nothing themselves. */
export interface BaseLook {
  font: string;
  /** In points. */
  size: number;
  colour: string;
}

const RISE = 0.33;
const SPACINGS = [1, 1.15, 1.3, 1.5, 2];
const BULLETS = ["•", "–", "▪", "→", "✓", "☐"];
const NUMBERS = SCHEMES.filter((scheme) => /^[1aAiI][.)]$/.test(scheme));

const MENU = "btn btn-ghost btn-xs h-7 gap-1 px-1";

/** Font, size, colours, alignment, level, bullets and spacing of the selected words and paragraphs. */
export function LookTools({ editor, base }: { editor: Editor; base: BaseLook }) {
  const { run, align } = useEditorState({
    editor,
    selector: ({ editor: now }) => ({
      run: runPropertiesAt(now),
      align: (now.getAttributes("paragraph").align as string | null) ?? "",
    }),
  });
  const set = (patch: Parameters<typeof setRunProperties>[1]) => setRunProperties(editor, patch);
  const aligned = (value: string) => setParagraphs(editor, { align: align === value ? null : value });
  const rise = (by: number) => set({ rise: run.rise === by ? null : by });
  return (
    <>
      <Tooltip text="Font of the selected words, or of the paragraph">
        <select
          className="select select-xs h-7 w-32"
          aria-label="Font"
          value={run.font ?? base.font}
          onChange={({ target }) => set({ font: target.value === base.font ? null : target.value })}
        >
          {[...new Set([base.font, ...(run.font ? [run.font] : []), ...FONT_NAMES])].map((name) => (
            <option key={name}>{name}</option>
          ))}
        </select>
      </Tooltip>
      <SizeField size={run.size ?? base.size} onSet={(size) => set({ size })} />
      <ColourTool
        label="Colour of the words"
        icon={Baseline}
        value={run.colour ?? base.colour}
        onSet={(colour) => set({ colour })}
      />
      <ColourTool
        label="Highlight"
        icon={Highlighter}
        value={run.highlight ?? "#ffe48a"}
        onSet={(highlight) => set({ highlight })}
      />
      <ToolButton label="Superscript" icon={Superscript} pressed={(run.rise ?? 0) > 0} onPress={() => rise(RISE)} />
      <ToolButton label="Subscript" icon={Subscript} pressed={(run.rise ?? 0) < 0} onPress={() => rise(-RISE)} />
      <span className="bg-base-300 mx-0.5 h-5 w-px" />
      <ToolButton
        label="Align at the start"
        icon={AlignLeft}
        pressed={align === "start"}
        onPress={() => aligned("start")}
      />
      <ToolButton label="Centre" icon={AlignCenter} pressed={align === "centre"} onPress={() => aligned("centre")} />
      <ToolButton label="Align at the end" icon={AlignRight} pressed={align === "end"} onPress={() => aligned("end")} />
      <ToolButton
        label="One level out"
        keys="Shift+Tab"
        icon={IndentDecrease}
        onPress={() => shiftLevel(editor, -1, MAX_LEVEL)}
      />
      <ToolButton
        label="One level in"
        keys="Tab"
        icon={IndentIncrease}
        onPress={() => shiftLevel(editor, 1, MAX_LEVEL)}
      />
      <MenuButton label="Kind of bullet or number" className={MENU} acts={bulletActs(editor)}>
        <List size={16} aria-hidden="true" />▾
      </MenuButton>
      <MenuButton label="Spacing" className={MENU} acts={spacingActs(editor)}>
        <Rows3 size={16} aria-hidden="true" />▾
      </MenuButton>
    </>
  );
}

function bulletActs(editor: Editor): MenuActs {
  const bullet = (kind: "bullet" | "number", of: Record<string, string>) => {
    setParagraphs(editor, { kind });
    setParagraphProperties(editor, { bullet: of });
  };
  return [
    ...BULLETS.map((character) => ({ label: `${character}  point`, act: () => bullet("bullet", { character }) })),
    undefined,
    ...NUMBERS.map((scheme) => ({ label: `${scheme}  number`, act: () => bullet("number", { scheme }) })),
    undefined,
    { label: "As the design has them", act: () => setParagraphProperties(editor, { bullet: null }) },
    { label: "None", act: () => setParagraphs(editor, { kind: "plain" }) },
  ];
}

function spacingActs(editor: Editor): MenuActs {
  const after = (points: number | null) =>
    setParagraphProperties(editor, { after: points === null ? null : { points } });
  return [
    ...SPACINGS.map((times) => ({
      label: `Lines ${times}`,
      act: () => setParagraphProperties(editor, { line: { times } }),
    })),
    undefined,
    ...[0, 6, 12, 18].map((points) => ({ label: `${points} points after the paragraph`, act: () => after(points) })),
    undefined,
    {
      label: "As the design has it",
      act: () => setParagraphProperties(editor, { line: null, after: null, before: null }),
    },
  ];
}

/** The size in points, typed or changed in steps. */
function SizeField({ size, onSet }: { size: number; onSet: (size: number) => void }) {
  const shown = String(Math.round(size * 10) / 10);
  const [text, setText] = useState(shown);
  useEffect(() => setText(shown), [shown]);
  const take = () => {
    const next = Number(text.replace(",", "."));
    if (next >= 1 && next <= 400 && text !== shown) onSet(next);
    else setText(shown);
  };
  return (
    <Tooltip text="Size in points; the arrow keys change it">
      <input
        className="input input-xs h-7 w-12 text-right"
        inputMode="decimal"
        aria-label="Size in points"
        value={text}
        onChange={({ target }) => setText(target.value)}
        onBlur={take}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === "Enter") take();
          const by = { ArrowUp: 1, ArrowDown: -1 }[event.key];
          if (!by) return;
          event.preventDefault();
          onSet(Math.max(1, Math.round(size) + by));
        }}
      />
    </Tooltip>
  );
}

function ColourTool({
  label,
  icon: Icon,
  value,
  onSet,
}: {
  label: string;
  icon: typeof Baseline;
  value: string;
  onSet: (colour: string) => void;
}) {
  return (
    <Tooltip text={label}>
      <label className="btn btn-ghost btn-xs btn-square relative h-7 w-7">
        <Icon size={16} aria-hidden="true" />
        <span className="absolute inset-x-1.5 bottom-0.5 h-1" style={{ background: value }} />
        <input
          type="color"
          aria-label={label}
          className="absolute inset-0 cursor-pointer opacity-0"
          value={value}
          onChange={({ target }) => onSet(target.value)}
        />
      </label>
    </Tooltip>
  );
}
