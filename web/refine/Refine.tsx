import { rearrange, type SingleChange, together } from "@unitext/core/edit";
import { cssFamily, familyNamed, LINE_HEIGHT, PARAGRAPH_GAP, type SceneBox, sizeOf, slotPlaces } from "@unitext/core/layout";
import { ARRANGEMENTS, type ArrangementName, countWords, type Element, isEmptyText, PAGES, pageName, pageNamed, type RichText, secondsOf, type Slide, type SlotRole, type TextElement, textOf, THEMES, themeKey, type ThemeKey } from "@unitext/core/model";
import { nanoid } from "nanoid";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { clock } from "../deck/time";
import { DeckFrame } from "../shell/DeckFrame";
import { ArrangementSketch } from "./ArrangementSketch";
import { RichTextEditor } from "./RichTextEditor";

const HEADING: readonly SlotRole[] = ["opening", "title", "statement", "number", "name"];
const ANCHOR = { top: "flex-start", middle: "center", bottom: "flex-end" } as const;
const SLOT_NAMES: Record<string, string> = { title: "title", subtitle: "line below the title", body: "text", left: "left column", middle: "middle column", right: "right column", number: "number", caption: "caption", picture: "picture", pictures: "pictures", table: "table", chart: "chart", diagram: "diagram", code: "code", formula: "formula" };

/** What is being edited: an element, or a slot that is still empty. */
type Target = { element: string } | { slot: string };

function Stage({ slide, number }: { slide: Slide; number: number }) {
  const { deck, head, session, canEdit } = useDeck();
  const scene = useScene(slide, number, head);
  const [target, setTarget] = useState<Target>();
  const stage = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(0);
  useEffect(() => setTarget(undefined), [slide.id]);
  useEffect(() => {
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 0));
    if (stage.current) observer.observe(stage.current);
    return () => observer.disconnect();
  }, []);
  const scale = width / deck.page.width;
  const places = slotPlaces(slide.arrangement, deck.page, slide.widths);
  const boxes = scene?.slide === slide.id ? scene.boxes.filter(({ element }) => slide.elements.some(({ id, kind }) => id === element && kind === "text")) : [];
  const filled = new Set(slide.elements.filter((element) => element.kind !== "text" || !isEmptyText(element.text)).map(({ slot }) => slot));
  const empty = [...places].filter(([slot, { role }]) => !filled.has(slot) && role !== "picture" && role !== "figure");
  const frame = ({ x, y, width: w, height: h }: { x: number; y: number; width: number; height: number }) => ({ left: x * scale, top: y * scale, width: w * scale, height: h * scale });

  const leave = () => {
    setTarget(undefined);
    stage.current?.querySelector<HTMLElement>("button")?.focus();
  };
  function change(text: RichText) {
    if (!target) return;
    if ("element" in target) session.apply({ kind: "setText", slide: slide.id, element: target.element, text });
    else if (!isEmptyText(text)) {
      const held = slide.elements.find((element) => element.slot === target.slot && element.kind === "text");
      const element: Element = { kind: "text", id: held?.id ?? nanoid(10), slot: target.slot, text };
      session.apply(held ? { kind: "setText", slide: slide.id, element: held.id, text } : { kind: "insertElement", slide: slide.id, element, index: target.slot === "title" ? 0 : slide.elements.length }, { words: "Added text" });
      setTarget({ element: element.id });
    }
  }
  const editing = target && ("element" in target ? slide.elements.find((element): element is TextElement => element.id === target.element && element.kind === "text") : undefined);
  const editingPlace = target && (("element" in target ? boxes.find(({ element }) => element === target.element) : undefined) ?? places.get(("slot" in target ? target.slot : editing?.slot) ?? ""));
  const role: SlotRole = target ? (places.get(("slot" in target ? target.slot : editing?.slot) ?? "")?.role ?? "body") : "body";
  const size = target && editingPlace && "size" in editingPlace && editingPlace.size ? editingPlace.size : sizeOf(role, deck.theme, deck.page);
  const place = editingPlace && ("frame" in editingPlace ? editingPlace.frame : editingPlace);
  const family = familyNamed(HEADING.includes(role) ? deck.theme.fonts.heading : deck.theme.fonts.body);
  const faces = family.faces.filter(({ weight, slant }) => weight === 400 && slant === "normal").map(({ id }) => `"${cssFamily(id)}"`);
  const anchor = places.get(target && "slot" in target ? target.slot : (editing?.slot ?? ""))?.anchor ?? "top";

  return (
    <div ref={stage} className="hairline relative mx-auto w-full border" style={{ maxWidth: `calc((100vh - 26rem) * ${deck.page.width / deck.page.height})`, minWidth: 420 }} data-stage>
      {scene ? <SlideView scene={scene} deck={deck.id} label={`Slide ${number}`} /> : <div style={{ aspectRatio: `${deck.page.width} / ${deck.page.height}` }} />}
      {canEdit &&
        boxes.map((box: SceneBox) => {
          const element = slide.elements.find(({ id }) => id === box.element);
          return <button key={box.element} type="button" aria-label={`Edit the ${SLOT_NAMES[element?.slot ?? ""] ?? "text"}`} className="absolute cursor-text hover:outline-2 hover:outline-dashed hover:outline-secondary" style={frame(box)} onClick={() => setTarget({ element: box.element as string })} />;
        })}
      {canEdit &&
        !target &&
        empty.map(([slot, { frame: area }]) => (
          <button key={slot} type="button" className="absolute border border-dashed text-sm" style={{ ...frame(area), color: deck.theme.colours.muted, borderColor: deck.theme.colours.muted }} onClick={() => setTarget({ slot })}>
            Add the {SLOT_NAMES[slot] ?? slot}
          </button>
        ))}
      {target && place && (
        <RichTextEditor
          key={JSON.stringify(target)}
          text={editing?.text ?? []}
          label={`Text of the ${SLOT_NAMES[("slot" in target ? target.slot : editing?.slot) ?? ""] ?? "element"}`}
          placeholder=""
          language={deck.language}
          autoFocus
          className="on-slide absolute z-10 flex flex-col outline-2 outline-secondary"
          style={{ left: place.x * scale, top: place.y * scale, width: place.width * scale, minHeight: place.height * scale, background: deck.theme.colours.paper, color: deck.theme.colours.ink, fontFamily: `${faces.join(", ")}, sans-serif`, fontSize: size * scale, lineHeight: LINE_HEIGHT[role], justifyContent: ANCHOR[anchor], textAlign: places.get(editing?.slot ?? "")?.align === "centre" ? "center" : "start", ["--marker" as string]: deck.theme.colours.accent, ["--gap" as string]: `${PARAGRAPH_GAP[role]}em`, ["--lift" as string]: `${place.y * scale}px` }}
          onChange={change}
          onLeave={leave}
        />
      )}
      {(scene?.overflow ?? 0) > 0 && <p className="bg-error text-error-content absolute right-0 bottom-0 px-2 py-0.5 text-sm">The text stands out by {Math.round(scene?.overflow ?? 0)} points: shorten it or divide the slide.</p>}
    </div>
  );
}

function Notes({ slide }: { slide: Slide }) {
  const { deck, session, canEdit } = useDeck();
  const words = countWords(textOf(slide.notes));
  if (!canEdit) return <p className="whitespace-pre-wrap">{textOf(slide.notes)}</p>;
  return (
    <section aria-label="Notes" className="hairline mx-auto mt-3 w-full max-w-4xl border">
      <header className="bg-base-200 flex items-baseline justify-between px-3 py-1 text-sm">
        <h2 className="font-semibold">Notes</h2>
        <span className="quiet">
          {words} words · {clock(secondsOf(slide, deck.rate))} to say
        </span>
      </header>
      <RichTextEditor key={slide.id} text={slide.notes} label="Notes" placeholder="" language={deck.language} className="notes px-3 py-2 font-serif" onChange={(notes) => session.apply({ kind: "setNotes", slide: slide.id, notes })} onLeave={() => document.querySelector<HTMLElement>("[data-spine][tabindex='0']")?.focus()} />
    </section>
  );
}

function Side({ slide }: { slide: Slide }) {
  const { deck, session, canEdit } = useDeck();
  const key = themeKey(deck.theme);
  const [preview, setPreview] = useState<ThemeKey>();
  const footer = useRef<HTMLInputElement>(null);
  const arrange = (name: ArrangementName) => {
    const single: SingleChange = rearrange(slide, name);
    session.apply(together([single]), { words: `Arranged as “${ARRANGEMENTS[name].label}”` });
  };
  return (
    <aside aria-label="Look" className="hairline bg-base-200 w-64 shrink-0 overflow-auto border-l p-4 text-sm">
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Arrangement</legend>
        <div className="grid grid-cols-2 gap-2">
          {(Object.keys(ARRANGEMENTS) as ArrangementName[]).map((name) => (
            <button key={name} type="button" aria-pressed={slide.arrangement === name} onClick={() => arrange(name)} className={`hairline bg-base-100 border p-1 text-left text-xs ${slide.arrangement === name ? "outline-2 outline-secondary" : ""}`}>
              <ArrangementSketch arrangement={name} page={deck.page} />
              {ARRANGEMENTS[name].label}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Theme of the deck</legend>
        <div className="flex flex-col gap-1">
          {(Object.keys(THEMES) as ThemeKey[]).map((name) => {
            const { colours, fonts, name: label } = THEMES[name];
            return (
              <button key={name} type="button" aria-pressed={key === name} onMouseEnter={() => setPreview(name)} onMouseLeave={() => setPreview(undefined)} onClick={() => session.apply({ kind: "setTheme", theme: THEMES[name] }, { words: `Theme “${label}”` })} className={`hairline flex items-center gap-2 border px-2 py-1.5 text-left ${key === name ? "outline-2 outline-secondary" : ""}`} style={{ background: colours.paper, color: colours.ink, fontFamily: `"${fonts.heading}"` }}>
                <span className="h-4 w-4 shrink-0" style={{ background: colours.accent }} />
                <span className="h-4 w-4 shrink-0" style={{ background: colours.second }} />
                {label}
              </button>
            );
          })}
        </div>
        {!key && <p className="quiet mt-1">Now: {deck.theme.name}, which came with the file.</p>}
        <p className="quiet mt-1 min-h-10" aria-live="polite">
          {preview ? `${THEMES[preview].fonts.heading} with ${THEMES[preview].fonts.body}` : ""}
        </p>
      </fieldset>
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Page</legend>
        <div className="join" role="group" aria-label="Page shape">
          {Object.keys(PAGES).map((name) => (
            <button key={name} type="button" aria-pressed={pageName(deck.page) === name} className={`btn join-item btn-sm ${pageName(deck.page) === name ? "btn-primary" : ""}`} onClick={() => session.apply({ kind: "setPage", page: pageNamed(name) ?? PAGES["16:9"] }, { words: `Page ${name}` })}>
              {name}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Deck</legend>
        {(["title", "author", "event"] as const).map((name) => (
          <label key={`${name}/${deck.properties[name]}`} className="mb-2 block">
            {{ title: "Title", author: "Author", event: "Event" }[name]}
            <input
              className="input input-sm w-full"
              defaultValue={deck.properties[name]}
              maxLength={500}
              onBlur={({ target: { value } }) => {
                if (value !== deck.properties[name]) session.apply({ kind: "setProperties", properties: { ...deck.properties, [name]: value } }, { words: `Changed the ${name}` });
              }}
            />
          </label>
        ))}
      </fieldset>
      <fieldset disabled={!canEdit}>
        <legend className="mb-2 font-semibold">On every slide</legend>
        <label className="mb-1 block" htmlFor="footer">
          Line at the foot
        </label>
        <input ref={footer} id="footer" key={deck.regions.footer} className="input input-sm mb-2 w-full" defaultValue={deck.regions.footer} maxLength={300} onBlur={() => footer.current && footer.current.value !== deck.regions.footer && session.apply({ kind: "setRegions", regions: { ...deck.regions, footer: footer.current.value } })} />
        <label className="flex items-center gap-2">
          <input type="checkbox" className="checkbox checkbox-sm" checked={deck.regions.number} onChange={(event) => session.apply({ kind: "setRegions", regions: { ...deck.regions, number: event.target.checked } })} />
          Slide number
        </label>
      </fieldset>
    </aside>
  );
}

export default function Refine() {
  const { deck, selected, select } = useDeck();
  const { slide: wanted } = useParams();
  const navigate = useNavigate();
  const open = (id: string) => navigate(`/decks/${deck.id}/refine/${id}`, { replace: true });
  useEffect(() => {
    if (wanted && deck.slides.some(({ id }) => id === wanted) && selected.at(-1) !== wanted) select([wanted]);
  }, [wanted]);
  const current = deck.slides.find(({ id }) => id === (wanted ?? selected.at(-1))) ?? deck.slides.find(({ id }) => id === selected.at(-1)) ?? deck.slides[0];
  const at = current ? deck.slides.indexOf(current) : -1;
  const go = (by: number) => {
    const next = deck.slides[at + by];
    if (next) {
      select([next.id]);
      open(next.id);
    }
  };
  const tools = (
    <div className="flex items-center gap-2 text-sm">
      <button type="button" className="btn btn-ghost btn-sm" disabled={at <= 0} onClick={() => go(-1)}>
        Back
      </button>
      <span>
        {at + 1} of {deck.slides.length}
      </span>
      <button type="button" className="btn btn-ghost btn-sm" disabled={at >= deck.slides.length - 1} onClick={() => go(1)}>
        Next
      </button>
    </div>
  );
  return (
    <DeckFrame place="Refine" tools={tools} onOpen={open}>
      {current ? (
        <div className="flex h-full">
          <div className="min-w-0 flex-1 overflow-auto p-4">
            <Stage key={current.id} slide={current} number={at + 1} />
            <Notes slide={current} />
          </div>
          <Side slide={current} />
        </div>
      ) : (
        <p className="p-8">There is no slide yet. Write some text, or add a slide in Arrange.</p>
      )}
    </DeckFrame>
  );
}

