import {
  cssFamily,
  familyNamed,
  LINE_HEIGHT,
  pageScale,
  paragraphGap,
  placeTheme,
  roleAppearance,
  type Scene,
  sizeOf,
  slotPlaces,
} from "@unitext/core/layout";
import {
  type Deck,
  type Element,
  type Frame,
  must,
  type RichText,
  type Slide,
  type SlotRole,
} from "@unitext/core/model";
import { batch, makeTextsSo } from "@unitext/core/edit";
import type { CSSProperties } from "react";
import { useDeck } from "../deck/DeckContext";
import { useCarets } from "../deck/useCarets";
import type { BaseLook } from "../richtext/LookTools";
import { RichTextEditor } from "../richtext/RichTextEditor";
import { slotName } from "./names";

/** What is being edited on the slide: an existing text, an empty slot, or the cells of a table. */
export type TextTarget = WordsTarget | { table: string };
type WordsTarget = { element: string } | { slot: string };

type Editable = Extract<Element, { kind: "text" | "shape" }>;

const ALIGN = { start: "start", centre: "center", end: "end" } as const;
const JUSTIFY = { top: "flex-start", middle: "center", bottom: "flex-end" } as const;

/** Behind light text whose own background is not known. */
const DARK_GROUND = "#20302e";

/** A text editor over the slide, with the font, size, colour and place of the text that it edits. */
export function InPlaceText({
  slide,
  scene,
  target,
  frames,
  scale,
  onChange,
  onLeave,
}: {
  slide: Slide;
  scene: Scene | undefined;
  target: WordsTarget;
  /** Frames of the elements, in points. */
  frames: ReadonlyMap<string, Frame>;
  /** CSS pixels a point. */
  scale: number;
  onChange: (text: RichText) => void;
  onLeave: () => void;
}) {
  const { deck, session } = useDeck();
  const element = "element" in target ? editableOf(slide, target.element) : undefined;
  const { carets, onCaret } = useCarets(slide.id, element?.id);
  const slot = "slot" in target ? target.slot : (element?.slot ?? "");
  const places = slotPlaces(slide.arrangement, deck, slide.widths);
  const slotFrame = places.get(slot)?.frame;
  const frame = "slot" in target ? slotFrame : (frames.get(target.element) ?? slotFrame);
  if (!frame) return null;
  const { style, base } = textStyle(deck, slide, scene, element, slot, scale);
  const makeAllSo = () => {
    if (element?.kind !== "text") return;
    const changes = makeTextsSo(deck, slide, element, pageScale(deck.page));
    if (changes.length) session.apply(batch(changes), { words: "Gave all texts of this kind this look" });
    else session.notify("The words have the look of their kind already.");
  };
  return (
    <RichTextEditor
      key={JSON.stringify(target)}
      text={element?.text ?? []}
      label={`Text of the ${slot ? slotName(slot) : element?.kind === "shape" ? "shape" : "element"}`}
      placeholder=""
      language={deck.language}
      autoFocus
      className="on-slide absolute z-10 flex flex-col outline-2 outline-secondary"
      style={{
        left: frame.x * scale,
        top: frame.y * scale,
        width: frame.width * scale,
        minHeight: frame.height * scale,
        ["--lift" as string]: `${frame.y * scale}px`,
        ["--shift" as string]: `${frame.x * scale}px`,
        ...style,
      }}
      base={base}
      {...(element?.kind === "text" && element.slot !== null ? { onMakeAllSo: makeAllSo } : {})}
      carets={carets}
      onCaret={onCaret}
      onChange={onChange}
      onLeave={onLeave}
    />
  );
}

function editableOf(slide: Slide, id: string): Editable | undefined {
  return slide.elements.find(
    (element): element is Editable => element.id === id && (element.kind === "text" || element.kind === "shape"),
  );
}

/** Returns the look of the text on the slide, as CSS and as what its words have where they set nothing. */
function textStyle(
  deck: Deck,
  slide: Slide,
  scene: Scene | undefined,
  element: Editable | undefined,
  slot: string,
  scale: number,
): { style: CSSProperties; base: BaseLook } {
  const { page } = deck;
  const place = slotPlaces(slide.arrangement, deck, slide.widths).get(slot);
  const role: SlotRole = place?.role ?? "body";
  const theme = placeTheme(slide, place?.surface, deck);
  const style = element?.style === undefined ? undefined : deck.styles?.[element.style]?.[0];
  const box = element && scene?.boxes.find((candidate) => candidate.element === element.id);
  const size = box?.size || style?.run?.size || sizeOf(role, theme, page);
  const appearance = roleAppearance(role, theme);
  const family = familyNamed(style?.run?.font ?? appearance.family);
  const own = style ? undefined : appearance;
  const weight = own?.strong ? 700 : 400;
  const faces = family.faces
    .filter((face) => face.weight === weight && face.slant === (own?.italic ? "italic" : "normal"))
    .map(({ id }) => `"${cssFamily(id)}"`);
  const anchor = element?.box?.anchor ?? place?.anchor ?? (element?.kind === "shape" ? "middle" : "top");
  const ink = style?.run?.colour ?? own?.fill ?? theme.colours.ink;
  const css: CSSProperties = {
    background: groundOf(theme.colours.paper, slide, element, ink),
    color: ink,
    fontFamily: `${faces.join(", ")}, sans-serif`,
    fontSize: size * scale,
    textTransform: own?.capitals ? "uppercase" : "none",
    letterSpacing: own?.spacing ? `${own.spacing}em` : "normal",
    lineHeight: LINE_HEIGHT[role],
    justifyContent: JUSTIFY[anchor],
    textAlign: ALIGN[style?.align ?? place?.align ?? "start"],
    ["--marker" as string]: theme.colours.accent,
    ["--gap" as string]: `${paragraphGap(role, theme)}em`,
    ["--point" as string]: `${scale}px`,
  };
  return { style: css, base: { font: family.family, size, colour: ink } };
}

/** Returns a colour on which the text can be read while it is edited: that of its fill, or the slide's. */
function groundOf(paper: string, slide: Slide, element: Editable | undefined, ink: string): string {
  if (element?.fill?.kind === "solid") return element.fill.colour;
  if (element?.fill?.kind === "gradient") return element.fill.stops[0]?.colour ?? paper;
  return slide.master !== undefined && isLight(ink) ? DARK_GROUND : paper;
}

/** Whether a colour "#rrggbb" is light, by the luma weights of ITU-R BT.709. */
function isLight(colour: string): boolean {
  const luma = [1, 3, 5].reduce(
    (total, from, nth) =>
      total + Number.parseInt(colour.slice(from, from + 2), 16) * must([0.2126, 0.7152, 0.0722][nth]),
    0,
  );
  return luma > 150;
}
