import { changePage, rearrangeIn, batch, withStamp } from "@unitext/core/edit";
import {
  ARRANGEMENTS,
  type ArrangementName,
  dataStamp,
  type Deck,
  withoutOwnAppearance,
  PAGES,
  pageName,
  pageNamed,
  type Regions,
  type Slide,
  slidePropertiesOf,
} from "@unitext/core/model";
import { useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { DesignDialog } from "../design/DesignDialog";
import { Add } from "./Add";
import { BackgroundPanel } from "./BackgroundPanel";
import { languageName, languageTag } from "../ui/languages";
import { ArrangementSketch } from "./ArrangementSketch";
import { Measure } from "../ui/Measure";
import { Motion } from "./Motion";
import type { Acts } from "./selection";

/** Returns the footer and numbers of a deck with the date of its linked values, or without. */
function stamped(deck: Deck, on: boolean): Regions {
  const { stamp: old = "", ...regions } = deck.regions;
  if (!on) return { ...regions, footer: withStamp(regions.footer, old, "") };
  const stamp = dataStamp(deck);
  return { ...regions, stamp, footer: withStamp(regions.footer, "", stamp).slice(0, 300) };
}

/** Page sizes are shown in centimetres, from one inch to 56 inches. */
const POINTS_IN_CM = 72 / 2.54;
const [LEAST_PAGE, MOST_PAGE] = [2.54, 142.24];

/** The appearance of the slide and of the deck. */
export function Appearance({
  slide,
  acts,
  ...play
}: {
  slide: Slide;
  acts: Acts;
  playing: boolean;
  onPlay: (on: boolean) => void;
  onChoose: (element: string) => void;
}) {
  const { deck, session, canEdit } = useDeck();
  const [choosing, setChoosing] = useState(false);
  const footer = useRef<HTMLInputElement>(null);
  const arrange = (name: ArrangementName) => {
    session.apply(batch(rearrangeIn(deck, slide, name)), { words: `Arranged as “${ARRANGEMENTS[name].label}”` });
  };
  const setFactor = (name: "textSize" | "spacing", percent: number, words: string) => {
    const { [name]: _, ...properties } = slidePropertiesOf(slide);
    const next = percent === 100 ? properties : { ...properties, [name]: percent / 100 };
    session.apply({ kind: "setSlideProperties", slide: slide.id, properties: next }, { words });
  };
  return (
    <>
      {canEdit && <Add acts={acts} slide={slide.id} />}
      {slide.master !== undefined && (
        <fieldset disabled={!canEdit} className="mb-5">
          <legend className="mb-1 font-semibold">From a file</legend>
          <p className="quiet mb-2">
            It looks as in the file that it came from: {deck.masters?.[slide.master]?.name || "its master"}.
          </p>
          <button
            type="button"
            className="btn btn-sm w-full"
            onClick={() =>
              session.apply(
                { kind: "setSlide", slide: slide.id, as: withoutOwnAppearance(slide, deck.theme) },
                { words: "Gave the slide the theme of the deck" },
              )
            }
          >
            Give it the look of the deck
          </button>
        </fieldset>
      )}
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Arrangement</legend>
        <div className="grid grid-cols-2 gap-2">
          {(Object.keys(ARRANGEMENTS) as ArrangementName[]).map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={slide.arrangement === name}
              onClick={() => arrange(name)}
              className={`hairline bg-base-100 border p-1 text-left text-xs ${slide.arrangement === name ? "outline-2 outline-secondary" : ""}`}
            >
              <ArrangementSketch arrangement={name} deck={deck} />
              {ARRANGEMENTS[name].label}
            </button>
          ))}
        </div>
      </fieldset>
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="sr-only">Text of the slide</legend>
        <Measure
          label="Text size of this slide"
          unit="%"
          least={50}
          most={200}
          step={5}
          value={(slide.textSize ?? 1) * 100}
          onSet={(percent) => setFactor("textSize", percent, `Text size ${Math.round(percent)} %`)}
        />
        <Measure
          label="Space between paragraphs"
          unit="%"
          least={0}
          most={500}
          step={10}
          value={(slide.spacing ?? 1) * 100}
          onSet={(percent) => setFactor("spacing", percent, `Space between paragraphs ${Math.round(percent)} %`)}
        />
      </fieldset>
      <BackgroundPanel slide={slide} />
      <Motion slide={slide} {...play} />
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Design of the deck</legend>
        <button
          type="button"
          className="hairline flex w-full items-center gap-2 border px-2 py-1.5 text-left"
          title="Choose the design, fonts and colours of the deck"
          onClick={() => setChoosing(true)}
        >
          {(["paper", "ink", "accent", "second", "field"] as const).map((role) => (
            <span
              key={role}
              className="hairline h-4 w-4 shrink-0 border"
              style={{ background: deck.theme.colours[role] }}
            />
          ))}
          <span className="min-w-0 truncate">{deck.theme.name}</span>
        </button>
      </fieldset>
      {choosing && <DesignDialog onClose={() => setChoosing(false)} />}
      <fieldset disabled={!canEdit} className="mb-5">
        <legend className="mb-2 font-semibold">Page</legend>
        <div className="join" role="group" aria-label="Page shape">
          {Object.keys(PAGES).map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={pageName(deck.page) === name}
              className={`btn join-item btn-sm ${pageName(deck.page) === name ? "btn-primary" : ""}`}
              onClick={() =>
                session.apply(changePage(deck, pageNamed(name) ?? PAGES["16:9"]), { words: `Page ${name}` })
              }
            >
              {name}
            </button>
          ))}
        </div>
        <div className="mt-2 grid grid-cols-2 gap-2">
          {(["width", "height"] as const).map((side) => (
            <Measure
              key={side}
              label={side === "width" ? "Width" : "Height"}
              unit="cm"
              least={LEAST_PAGE}
              most={MOST_PAGE}
              value={deck.page[side] / POINTS_IN_CM}
              onSet={(size) =>
                session.apply(
                  changePage(deck, {
                    ...deck.page,
                    [side]: Math.min(4032, Math.max(72, Math.round(size * POINTS_IN_CM * 100) / 100)),
                  }),
                  { words: `Page of another ${side}` },
                )
              }
            />
          ))}
        </div>
        <p className="quiet mt-1 text-xs">
          Text is fitted again; positioned elements are moved and scaled with the page.
        </p>
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
                if (value !== deck.properties[name])
                  session.apply(
                    { kind: "setProperties", properties: { ...deck.properties, [name]: value } },
                    { words: `Changed the ${name}` },
                  );
              }}
            />
          </label>
        ))}
        <label key={deck.language} className="mb-2 block">
          Language
          <input
            className="input input-sm w-full"
            defaultValue={deck.language}
            aria-describedby="deck-language"
            onBlur={({ target }) => {
              const language = languageTag(target.value);
              if (!language) {
                session.notify(`“${target.value}” is no language. Write a tag such as en, pt-BR or zh-Hant.`);
                target.value = deck.language;
              } else if (language !== deck.language)
                session.apply({ kind: "setLanguage", language }, { words: `Language ${languageName(language)}` });
            }}
          />
          <span id="deck-language" className="quiet text-xs">
            {languageName(deck.language)}. Line breaks, the form of numbers and the direction of reading follow it.
          </span>
        </label>
      </fieldset>
      <fieldset disabled={!canEdit}>
        <legend className="mb-2 font-semibold">On every slide</legend>
        <label className="mb-1 block" htmlFor="footer">
          Line at the foot
          <span className="quiet block text-xs">
            {"{title}, {author}, {event} and {date} stand for those of the deck"}
          </span>
        </label>
        <input
          ref={footer}
          id="footer"
          key={deck.regions.footer}
          className="input input-sm mb-2 w-full"
          defaultValue={deck.regions.footer}
          maxLength={300}
          onBlur={() =>
            footer.current &&
            footer.current.value !== deck.regions.footer &&
            session.apply({ kind: "setRegions", regions: { ...deck.regions, footer: footer.current.value } })
          }
        />
        <label className="mb-2 block" key={`header/${deck.regions.header ?? ""}`}>
          Line at the top
          <input
            className="input input-sm w-full"
            defaultValue={deck.regions.header ?? ""}
            maxLength={300}
            onBlur={({ target: { value } }) => {
              if (value === (deck.regions.header ?? "")) return;
              const { header: _, ...regions } = deck.regions;
              session.apply({ kind: "setRegions", regions: value ? { ...regions, header: value } : regions });
            }}
          />
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={deck.regions.number}
            onChange={(event) =>
              session.apply({ kind: "setRegions", regions: { ...deck.regions, number: event.target.checked } })
            }
          />
          Slide number
        </label>
        <label
          className="mt-1 flex items-center gap-2"
          title="Says in the line at the foot which day the linked values are of"
        >
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={deck.regions.stamp !== undefined}
            onChange={(event) => session.apply({ kind: "setRegions", regions: stamped(deck, event.target.checked) })}
          />
          Date of the linked values
        </label>
      </fieldset>
    </>
  );
}
