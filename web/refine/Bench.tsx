import { MOTION_CSS } from "@unitext/core/draw";
import { cssFamily, familyNamed, LINE_HEIGHT, PARAGRAPH_GAP, sizeOf, slotPlaces } from "@unitext/core/layout";
import {
  type Crop,
  type Element,
  type Frame,
  isEmptyText,
  type PictureElement,
  type RichText,
  type Slide,
  type SlotRole,
  stepsForm,
  withSteps,
  must,
} from "@unitext/core/model";
import { nanoid } from "nanoid";
import { useEffect, useMemo, useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { useCommands } from "../keys";
import { styleNonce } from "../shell/nonce";
import { CropPane, movedCrop, zoomedCrop } from "./Crop";
import { Frames } from "./Frames";
import { Appearance } from "./Appearance";
import { Comments } from "./Comments";
import { Notes } from "./Notes";
import { usePlay } from "./play";
import { RichTextEditor } from "../richtext/RichTextEditor";
import { framesOf, nameOfElement, slotName, useActs } from "./selection";
import { Selected } from "./Selected";

const HEADING: readonly SlotRole[] = ["opening", "title", "statement", "number", "name"];
const ANCHOR = { top: "flex-start", middle: "center", bottom: "flex-end" } as const;
const STEP = 1;
const LEAP = 10;

/** What is being edited: an existing text, or an empty slot. */
type Target = { element: string } | { slot: string };

/** One slide: its elements to select, move, resize and rotate; the selection is described at the side. */
export function Bench({ slide: given, number }: { slide: Slide; number: number }) {
  const { deck, metadata, session, canEdit } = useDeck();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [target, setTarget] = useState<Target>();
  const [cropping, setCropping] = useState<string>();
  const [draft, setDraft] = useState<ReadonlyMap<string, Frame & { rotation?: number }>>(new Map());
  const stage = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 0));
    if (stage.current) observer.observe(stage.current);
    return () => observer.disconnect();
  }, []);
  // While elements are moved, the slide is drawn with their new frames.
  const slide = useMemo(
    () =>
      draft.size
        ? {
            ...given,
            elements: given.elements.map((element) =>
              draft.has(element.id)
                ? ({
                    ...element,
                    frame: must(draft.get(element.id)),
                    rotation: draft.get(element.id)?.rotation ?? 0,
                  } as Element)
                : element,
            ),
          }
        : given,
    [given, draft],
  );
  const scene = useScene(slide, number, metadata);
  const frames = useMemo(() => framesOf(given, scene), [given, scene]);
  const shown = useMemo(() => new Map([...frames, ...draft]), [frames, draft]);
  const choose = (ids: readonly string[]) => {
    setCropping(undefined);
    setChosen(ids);
  };
  const { press, play } = usePlay(given);
  const acts = useActs(given, chosen, frames, choose);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is selected and drafted is checked when the slide changes, not at every selection.
  useEffect(() => {
    const known = new Set(given.elements.map(({ id }) => id));
    if (chosen.some((id) => !known.has(id))) setChosen(chosen.filter((id) => known.has(id)));
    setDraft(new Map());
  }, [given]);

  const scale = width / deck.page.width;
  const places = slotPlaces(given.arrangement, deck.page, given.widths);
  const filled = new Set(
    given.elements.filter((element) => element.kind !== "text" || !isEmptyText(element.text)).map(({ slot }) => slot),
  );
  const empty =
    given.master === undefined
      ? [...places].filter(([slot, { role }]) => !filled.has(slot) && role !== "picture" && role !== "figure")
      : [];
  const at = ({ x, y, width: w, height: h, rotation }: Frame & { rotation?: number }) => ({
    left: x * scale,
    top: y * scale,
    width: w * scale,
    height: h * scale,
    ...(rotation ? { transform: `rotate(${rotation}deg)` } : {}),
  });
  const handle = (id: string) => stage.current?.querySelector<HTMLElement>(`[data-frame="${id}"] button`);

  const pick = (id: string, more: boolean) => {
    const group = acts.withGroups([id]);
    if (!more) choose(group);
    else choose(chosen.includes(id) ? chosen.filter((other) => !group.includes(other)) : [...chosen, ...group]);
  };
  const open = (element: Element | undefined) => {
    if (!canEdit || !element) return;
    // A member of a group is opened by itself.
    if (chosen.length > 1 || chosen[0] !== element.id) choose([element.id]);
    if (element.kind === "text" || element.kind === "shape") setTarget({ element: element.id });
    else if (element.kind === "picture") setCropping(element.id);
    else requestAnimationFrame(() => document.querySelector<HTMLElement>("[data-selected] [data-first]")?.focus());
  };
  /** An element that was clicked among several selected ones. */
  const pressed = (id: string, { twice, more }: { twice: boolean; more: boolean }) => {
    if (twice) open(given.elements.find((element) => element.id === id));
    else if (more || !chosen.includes(id)) pick(id, more);
  };
  const leave = () => {
    const back = target && "element" in target ? target.element : undefined;
    setTarget(undefined);
    requestAnimationFrame(() =>
      back ? handle(back)?.focus() : stage.current?.querySelector<HTMLElement>("button")?.focus(),
    );
  };
  function write(text: RichText) {
    if (!target) return;
    if ("element" in target) {
      const element = given.elements.find(({ id }) => id === target.element);
      if (element?.kind === "shape")
        session.apply(
          { kind: "setElement", slide: given.id, element: { ...element, text } },
          { words: "Changed the words of a shape" },
        );
      // Points that appear with those above them still do, whatever their level now.
      else
        session.apply({
          kind: "setText",
          slide: given.id,
          element: target.element,
          text:
            element?.kind === "text" && element.steps && stepsForm(element.text) === "main"
              ? withSteps(text, "main")
              : text,
        });
    } else if (!isEmptyText(text)) {
      const held = given.elements.find((element) => element.slot === target.slot && element.kind === "text");
      const element: Element = { kind: "text", id: held?.id ?? nanoid(10), slot: target.slot, text };
      session.apply(
        held
          ? { kind: "setText", slide: given.id, element: held.id, text }
          : {
              kind: "insertElement",
              slide: given.id,
              element,
              index: target.slot === "title" ? 0 : given.elements.length,
            },
        { words: "Added text" },
      );
      setTarget({ element: element.id });
    }
  }
  function onKey(event: React.KeyboardEvent) {
    if (target || !chosen.length || !canEdit || event.ctrlKey || event.metaKey || event.altKey) return;
    const step = event.shiftKey ? LEAP : STEP;
    const moves: Record<string, [number, number]> = {
      ArrowLeft: [-step, 0],
      ArrowRight: [step, 0],
      ArrowUp: [0, -step],
      ArrowDown: [0, step],
    };
    const move = moves[event.key];
    if (!move && event.key !== "Escape") return;
    event.preventDefault();
    event.stopPropagation();
    if (!move) {
      if (cropping) setCropping(undefined);
      else choose([]);
      return;
    }
    const cut = acts.elements.find(({ id }) => id === cropping);
    if (cut?.kind === "picture") crop(cut, movedCrop(cut.crop ?? NO_CROP, move[0] / 100, move[1] / 100));
    else acts.nudge(...move);
  }
  const crop = (element: PictureElement, next: Crop) =>
    session.apply(
      {
        kind: "setElement",
        slide: given.id,
        element: { ...element, frame: element.frame ?? must(frames.get(element.id)), crop: next },
      },
      { words: "Cropped a picture" },
    );
  useCommands(
    canEdit && !target && chosen.length
      ? {
          removeElement: acts.remove,
          duplicateElement: acts.duplicate,
          front: () => acts.order("front"),
          back: () => acts.order("back"),
          group: () => (acts.elements.length > 1 ? acts.group() : undefined),
          ungroup: () => (acts.elements.some(({ groups }) => groups?.length) ? acts.ungroup() : undefined),
        }
      : {},
  );

  const editing =
    target && "element" in target
      ? given.elements.find(
          (element): element is Extract<Element, { kind: "text" | "shape" }> =>
            element.id === target.element && (element.kind === "text" || element.kind === "shape"),
        )
      : undefined;
  const slot = target && ("slot" in target ? target.slot : (editing?.slot ?? ""));
  const role: SlotRole = (slot ? places.get(slot)?.role : undefined) ?? "body";
  const box = editing && scene?.boxes.find(({ element }) => element === editing.id);
  const style = editing?.style === undefined ? undefined : deck.styles?.[editing.style];
  const size = box?.size || style?.[0]?.run?.size || sizeOf(role, deck.theme, deck.page);
  const place =
    target &&
    ("slot" in target ? places.get(target.slot)?.frame : (frames.get(target.element) ?? places.get(slot ?? "")?.frame));
  const family = familyNamed(
    style?.[0]?.run?.font ?? (HEADING.includes(role) ? deck.theme.fonts.heading : deck.theme.fonts.body),
  );
  const faces = family.faces
    .filter(({ weight, slant }) => weight === 400 && slant === "normal")
    .map(({ id }) => `"${cssFamily(id)}"`);
  const anchor =
    editing?.box?.anchor ??
    (slot ? places.get(slot)?.anchor : undefined) ??
    (editing?.kind === "shape" ? "middle" : "top");
  const ink = style?.[0]?.run?.colour ?? deck.theme.colours.ink;
  const behind =
    editing?.fill?.kind === "solid"
      ? editing.fill.colour
      : editing?.fill?.kind === "gradient"
        ? (editing.fill.stops[0]?.colour ?? deck.theme.colours.paper)
        : slide.master !== undefined && isLight(ink)
          ? "#20302e"
          : deck.theme.colours.paper;
  const cut =
    cropping === undefined
      ? undefined
      : given.elements.find(
          (element): element is PictureElement => element.id === cropping && element.kind === "picture",
        );

  return (
    <div className="flex h-full">
      {press !== undefined && <style nonce={styleNonce}>{MOTION_CSS}</style>}
      <div className="min-w-0 flex-1 overflow-auto p-4">
        <div
          ref={stage}
          role="group"
          aria-label={`Slide ${number}`}
          className="hairline relative mx-auto w-full border"
          style={{ maxWidth: `calc((100vh - 26rem) * ${deck.page.width / deck.page.height})`, minWidth: 420 }}
          data-stage
          onKeyDown={onKey}
          onPointerDown={(event) => event.target === event.currentTarget && choose([])}
        >
          <div className="pointer-events-none">
            {scene ? (
              <SlideView
                scene={scene}
                deck={deck.id}
                label={`Slide ${number}`}
                {...(press === undefined ? {} : { step: press, since: -1 })}
              />
            ) : (
              <div style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />
            )}
          </div>
          <button
            type="button"
            tabIndex={-1}
            aria-hidden
            className="absolute inset-0 cursor-default"
            onClick={() => choose([])}
          />
          {given.elements.map((element) => {
            const frame = shown.get(element.id);
            if (!frame) return null;
            const on = chosen.includes(element.id);
            return (
              // The frame is as large as the element; its click target is never smaller than a fingertip.
              <div key={element.id} data-frame={element.id} className="pointer-events-none absolute" style={at(frame)}>
                <button
                  type="button"
                  aria-pressed={on}
                  aria-label={nameOfElement(element)}
                  title={canEdit ? "Press to select; press Enter, or twice, to open it" : nameOfElement(element)}
                  className={`pointer-events-auto absolute ${on ? "cursor-move" : "cursor-pointer hover:outline-2 hover:outline-dashed hover:outline-secondary"} ${on && (chosen.length > 1 || !canEdit) ? "outline-2 outline-secondary" : ""}`}
                  style={pressable(frame.width * scale, frame.height * scale)}
                  onPointerDown={(event) => {
                    if (!on) pick(element.id, event.shiftKey);
                  }}
                  onClick={(event) => {
                    if (on && event.shiftKey && event.detail === 1) pick(element.id, true);
                  }}
                  onDoubleClick={() => open(element)}
                  onKeyDown={(event) => {
                    if (event.key === " ") {
                      event.preventDefault();
                      pick(element.id, event.shiftKey || event.ctrlKey);
                    } else if (event.key === "Enter") {
                      event.preventDefault();
                      if (on) open(element);
                      else pick(element.id, event.shiftKey);
                    }
                  }}
                />
              </div>
            );
          })}
          {canEdit &&
            !target &&
            empty.map(([name, { frame: area }]) => (
              <button
                key={name}
                type="button"
                className="absolute border border-dashed text-sm"
                style={{ ...at(area), color: deck.theme.colours.muted, borderColor: deck.theme.colours.muted }}
                onClick={() => setTarget({ slot: name })}
              >
                Add the {slotName(name)}
              </button>
            ))}
          {canEdit && !target && !cut && chosen.length > 0 && stage.current && scale > 0 && (
            <Frames
              stage={stage.current}
              chosen={chosen}
              scale={scale}
              page={deck.page}
              frames={frames}
              keepRatio={acts.elements.length === 1 && acts.elements[0]?.kind === "picture"}
              onDraft={setDraft}
              onPress={pressed}
              onPlace={(next) => {
                acts.place(next);
                setDraft(new Map());
              }}
            />
          )}
          {cut && frames.get(cut.id) && (
            <CropPane
              picture={cut}
              asset={deck.assets[cut.source]}
              frame={must(frames.get(cut.id))}
              scale={scale}
              style={at(must(frames.get(cut.id)))}
              onCrop={(next) => crop(cut, next)}
              onLeave={() => setCropping(undefined)}
            />
          )}
          {target && place && (
            <RichTextEditor
              key={JSON.stringify(target)}
              text={editing?.text ?? []}
              label={`Text of the ${slot ? slotName(slot) : editing?.kind === "shape" ? "shape" : "element"}`}
              placeholder=""
              language={deck.language}
              autoFocus
              className="on-slide absolute z-10 flex flex-col outline-2 outline-secondary"
              style={{
                left: place.x * scale,
                top: place.y * scale,
                width: place.width * scale,
                minHeight: place.height * scale,
                background: behind,
                color: ink,
                fontFamily: `${faces.join(", ")}, sans-serif`,
                fontSize: size * scale,
                lineHeight: LINE_HEIGHT[role],
                justifyContent: ANCHOR[anchor],
                textAlign:
                  (style?.[0]?.align ?? (slot ? places.get(slot)?.align : undefined)) === "centre" ? "center" : "start",
                ["--marker" as string]: deck.theme.colours.accent,
                ["--gap" as string]: `${PARAGRAPH_GAP[role]}em`,
                ["--lift" as string]: `${place.y * scale}px`,
              }}
              onChange={write}
              onLeave={leave}
            />
          )}
          {(scene?.overflow ?? 0) > 0 && (
            <p className="bg-error text-error-content absolute right-0 bottom-0 px-2 py-0.5 text-sm">
              The text overflows by {Math.round(scene?.overflow ?? 0)} points: shorten it or divide the slide.
            </p>
          )}
        </div>
        {/* Focus in the notes ends the selection. */}
        {/* biome-ignore lint/a11y/noStaticElementInteractions: the focus of the fields inside is heard here. */}
        <div onFocus={() => choose([])}>
          <Notes slide={given} />
          <Comments slide={given} />
        </div>
      </div>
      <aside
        aria-label={chosen.length ? "Selection" : "Appearance"}
        className="hairline bg-base-200 w-72 shrink-0 overflow-auto border-l p-4 text-sm [&_.btn:not(.btn-primary):not(:disabled)]:border-base-300 [&_.btn:not(.btn-primary):not(:disabled)]:bg-base-100"
        data-selected={chosen.length ? "" : undefined}
      >
        {chosen.length ? (
          <Selected
            slide={given}
            acts={acts}
            frames={frames}
            cropping={cropping}
            onCropping={setCropping}
            onZoom={(picture, share) =>
              crop(picture, zoomedCrop(picture, deck.assets[picture.source], frames.get(picture.id), share))
            }
            onWrite={(id) => setTarget({ element: id })}
            onLeave={() => choose([])}
          />
        ) : (
          <Appearance
            slide={given}
            acts={acts}
            playing={press !== undefined}
            onPlay={play}
            onChoose={(id) => choose([id])}
          />
        )}
      </aside>
    </div>
  );
}

const TARGET = 24;
/** Returns the frame of an element's button: all of the element, and more where that is small. */
function pressable(width: number, height: number): React.CSSProperties {
  const [x, y] = [Math.max(0, (TARGET - width) / 2), Math.max(0, (TARGET - height) / 2)];
  return { left: -x, right: -x, top: -y, bottom: -y };
}

export const NO_CROP: Crop = { left: 0, top: 0, right: 0, bottom: 0 };
const isLight = (colour: string) =>
  [1, 3, 5].reduce(
    (sum, from, nth) => sum + Number.parseInt(colour.slice(from, from + 2), 16) * must([0.2126, 0.7152, 0.0722][nth]),
    0,
  ) > 150;
