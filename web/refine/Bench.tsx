import { MOTION_CSS } from "@unitext/core/draw";
import { drawnPlaces } from "@unitext/core/layout";
import { inKind } from "@unitext/core/edit";
import {
  type Comment,
  type Crop,
  type Element,
  openCommentsOn,
  type PictureElement,
  type Slide,
  must,
} from "@unitext/core/model";
import { nanoid } from "nanoid";
import { type MouseEvent, type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import { SlideComments, withQuoteMarked } from "../comments";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { useCommands } from "../keys";
import { styleNonce } from "../shell/nonce";
import { useInsert } from "../insert/useInsert";
import { WithContextMenu } from "../ui/Menu";
import { useFileChooser } from "../ui/useFileChooser";
import { Appearance } from "./Appearance";
import { movedCrop, NO_CROP, zoomedCrop } from "./crop";
import { framesOf } from "./frames";
import { nameOfElement } from "./names";
import { NEW_FIGURES } from "./newfigures";
import { Notes } from "./Notes";
import { usePlay } from "./play";
import { Selected } from "./Selected";
import { useActs } from "./selection";
import { Stage } from "./Stage";
import { elementMenu, slideMenu } from "./stagemenu";
import { useSelectionKeys } from "./useSelectionKeys";
import { useTextTarget } from "./useTextTarget";

/** Where this browser keeps whether distances are written while something is moved. */
const DISTANCES = "unitext:distances";

/** One slide: its elements to select, move, resize and rotate; the selection is described at the side. */
export function Bench({ slide, number }: { slide: Slide; number: number }) {
  const { deck, metadata, session, canEdit } = useDeck();
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const [cropping, setCropping] = useState<string>();
  const [distances, setDistances] = useState(() => localStorage.getItem(DISTANCES) === "true");
  const stage = useRef<HTMLDivElement>(null);
  const { target, setTarget, write } = useTextTarget(slide);
  /** The element that a comment is written on; null for the slide, undefined while none is written. */
  const [composing, setComposing] = useState<string | null>();
  const [commenting, setCommenting] = useState(false);
  const [pointed, setPointed] = useState<Comment>();
  const comments = openCommentsOn(slide);
  const drawn = useMemo(() => withQuoteMarked(slide, pointed), [slide, pointed]);
  const scene = useScene(drawn, number, metadata);
  // A paste may wait for the worker; what it brings lands on the slide as it is drawn then.
  const latestScene = useRef(scene);
  latestScene.current = scene;
  const frames = useMemo(() => framesOf(slide, scene), [slide, scene]);
  const { press, transition, play } = usePlay(slide);
  const choose = (ids: readonly string[]) => {
    setCropping(undefined);
    setChosen(ids);
  };
  const worked = target && "element" in target ? target.element : (chosen[0] ?? null);
  useEffect(() => session.move({ element: worked, at: null }), [session, worked]);
  const acts = useActs(slide, chosen, frames, scene, choose);
  const { dialog, over, handlers, takeFiles } = useInsert({
    slide,
    occupied: () => (latestScene.current ? drawnPlaces(latestScene.current) : []),
    onPut: (id) => choose([id]),
  });
  const chooser = useFileChooser({
    label: "Pictures for the slide",
    accept: "image/*,.wmf,.emf,.tif,.tiff",
    multiple: true,
    onFiles: (files) => void takeFiles(files),
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is selected is checked when the slide changes, not at every selection.
  useEffect(() => {
    const known = new Set(slide.elements.map(({ id }) => id));
    if (chosen.some((id) => !known.has(id))) setChosen(chosen.filter((id) => known.has(id)));
  }, [slide]);
  const cropped = slide.elements.find(
    (element): element is PictureElement => element.id === cropping && element.kind === "picture",
  );
  const crop = (element: PictureElement, next: Crop) =>
    session.apply(
      {
        kind: "setElement",
        slide: slide.id,
        element: { ...element, frame: element.frame ?? must(frames.get(element.id)), crop: next },
      },
      { words: "Cropped a picture" },
    );

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
    else if (element.kind === "table" && !element.binding) setTarget({ table: element.id });
    else
      requestAnimationFrame(() =>
        document.querySelector<HTMLElement>("[data-selected] [data-first], [data-selected] [role=textbox]")?.focus(),
      );
  };
  const leaveText = () => {
    const id = target && ("element" in target ? target.element : "table" in target ? target.table : undefined);
    const back = id === undefined ? "button" : `[data-frame="${id}"] button`;
    setTarget(undefined);
    requestAnimationFrame(() => stage.current?.querySelector<HTMLElement>(back)?.focus());
  };
  const add = (element: Omit<Element, "id">, words: string) =>
    acts.add(inKind({ ...element, id: nanoid(10) } as Element, deck.theme), words);
  const comment = () => {
    setCommenting(true);
    setComposing(chosen.length === 1 ? (chosen[0] ?? null) : null);
  };
  useCommands({ comment });
  const menu = chosen.length ? elementMenu(acts, open, comment) : slideMenu(deck.page, add, chooser.choose);
  /** Clears the selection at a right click outside every element: the menu is then about the slide. */
  const chooseUnder = (event: MouseEvent<HTMLElement>) => {
    if (!target && !cropped && !(event.target as HTMLElement).closest("[data-frame], .moveable-control-box"))
      choose([]);
  };
  const onKeyDown = useSelectionKeys({
    acts,
    active: canEdit && !target && chosen.length > 0,
    cropped: cropped && {
      move: (dx, dy) => crop(cropped, movedCrop(cropped.crop ?? NO_CROP, dx, dy)),
      leave: () => setCropping(undefined),
    },
    leave: () => choose([]),
  });

  return (
    <div
      className={`flex h-full max-md:flex-col max-md:overflow-y-auto ${over ? "outline-2 -outline-offset-4 outline-secondary" : ""}`}
      {...handlers}
    >
      {dialog}
      {chooser.input}
      {(press !== undefined || transition) && <style nonce={styleNonce}>{MOTION_CSS}</style>}
      <div className="min-w-0 flex-1 overflow-auto px-2 py-2 max-md:flex-none max-md:overflow-visible">
        <WithContextMenu acts={menu} disabled={!canEdit || target !== undefined || cropped !== undefined}>
          <div onContextMenuCapture={chooseUnder}>
            <Stage
              ref={stage}
              slide={slide}
              number={number}
              scene={scene}
              frames={frames}
              acts={acts}
              chosen={chosen}
              cropped={cropped}
              target={target}
              press={press}
              transition={transition}
              onKeyDown={onKeyDown}
              onChoose={choose}
              onPick={pick}
              onOpen={open}
              slotActs={{
                onText: (slot) => setTarget({ slot }),
                onPicture: chooser.choose,
                onFigure: (kind) => {
                  const { element, words } = NEW_FIGURES[kind];
                  add(element, words);
                },
              }}
              onWrite={write}
              onLeaveText={leaveText}
              onCrop={crop}
              onLeaveCrop={() => setCropping(undefined)}
              distances={distances}
            />
          </div>
        </WithContextMenu>
        {/* Focus in the notes ends the selection. */}
        {/* biome-ignore lint/a11y/noStaticElementInteractions: the focus of the fields inside is heard here. */}
        <div onFocus={() => choose([])}>
          <Notes slide={slide} />
        </div>
      </div>
      <aside
        aria-label={commenting ? "Comments" : chosen.length ? "Selection" : "Appearance"}
        className="hairline bg-base-200 w-64 shrink-0 overflow-auto border-l p-3 text-sm max-md:w-full max-md:overflow-visible max-md:border-t max-md:border-l-0 [&_.btn:not(.btn-primary):not(:disabled)]:border-base-300 [&_.btn:not(.btn-primary):not(:disabled)]:bg-base-100"
        data-selected={chosen.length ? "" : undefined}
      >
        <div className="join mb-3 w-full" role="group" aria-label="What is shown here">
          <SideButton on={!commenting} onPress={() => setCommenting(false)}>
            {chosen.length ? "Selection" : "Look"}
          </SideButton>
          <SideButton on={commenting} onPress={() => setCommenting(true)}>
            Comments {comments > 0 && <span className="tabular-nums">{comments}</span>}
          </SideButton>
        </div>
        {commenting ? (
          <SlideComments
            slide={slide}
            selected={chosen.length === 1 ? chosen[0] : undefined}
            composing={composing}
            nameOf={(id) => {
              const element = slide.elements.find((one) => one.id === id);
              return element ? nameOfElement(element) : "";
            }}
            onCompose={setComposing}
            onShow={setPointed}
          />
        ) : chosen.length ? (
          <Selected
            slide={slide}
            acts={acts}
            frames={frames}
            cropping={cropping}
            onCropping={setCropping}
            onZoom={(picture, share) =>
              crop(picture, zoomedCrop(picture, deck.assets[picture.source], frames.get(picture.id), share))
            }
            onWrite={(id) => setTarget({ element: id })}
            onChoose={(id) => choose([id])}
            onTable={(id) => setTarget({ table: id })}
            onLeave={() => choose([])}
            distances={distances}
            onDistances={(on) => {
              setDistances(on);
              localStorage.setItem(DISTANCES, String(on));
            }}
          />
        ) : (
          <Appearance
            slide={slide}
            acts={acts}
            onPictures={(files) => void takeFiles(files)}
            playing={press !== undefined}
            onPlay={play}
            onChoose={(id) => choose([id])}
          />
        )}
      </aside>
    </div>
  );
}

/** A button that chooses what the panel at the side shows. */
function SideButton({ on, onPress, children }: { on: boolean; onPress: () => void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={on}
      className={`btn join-item btn-sm flex-1 font-normal ${on ? "btn-primary" : ""}`}
      onClick={onPress}
    >
      {children}
    </button>
  );
}
