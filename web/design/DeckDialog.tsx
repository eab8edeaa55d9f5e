import { changePage, withStamp } from "@unitext/core/edit";
import { dataStamp, type Deck, PAGES, pageName, pageNamed, type Regions } from "@unitext/core/model";
import { useRef, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { Dialog } from "../ui/Dialog";
import { languageName, languageTag } from "../ui/languages";
import { Measure } from "../ui/Measure";

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

/** What is the same for the whole deck: its page, title, author, language, and the lines on every slide. */
export function DeckDialog({ onClose }: { onClose: () => void }) {
  const { deck, session, canEdit } = useDeck();
  const footer = useRef<HTMLInputElement>(null);
  /** What is wrong with the language that was typed. */
  const [problem, setProblem] = useState("");
  return (
    <Dialog
      title="Deck"
      width="wide"
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Done
        </button>
      )}
    >
      <div className="gap-x-8 text-sm sm:columns-2 [&>fieldset]:break-inside-avoid">
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
          <legend className="mb-2 font-semibold">Title and author</legend>
          {(["title", "author", "event", "date"] as const).map((name) => (
            <label key={`${name}/${deck.properties[name]}`} className="mb-2 block">
              {{ title: "Title", author: "Author", event: "Event", date: "Date" }[name]}
              <input
                className="input input-sm w-full"
                defaultValue={deck.properties[name]}
                maxLength={name === "date" ? 100 : 500}
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
                setProblem(
                  language ? "" : `“${target.value}” is no language. Write a tag such as en, pt-BR or zh-Hant.`,
                );
                if (!language) target.value = deck.language;
                else if (language !== deck.language)
                  session.apply({ kind: "setLanguage", language }, { words: `Language ${languageName(language)}` });
              }}
            />
            {problem && (
              <span role="alert" className="text-error block text-xs">
                {problem}
              </span>
            )}
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
      </div>
    </Dialog>
  );
}
