import type { WritableFormat } from "@unitext/core/formats";
import type { Sheets } from "@unitext/core/layout";
import { bindingsOn, type PrivatePart } from "@unitext/core/model";
import { Report } from "@unitext/core/tally";
import { Clapperboard, TimerReset } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import useSWR from "swr";
import { download, get } from "../api/client";
import { ByItselfDialog } from "../deck/ByItselfDialog";
import { DELAY, delayFrom } from "../deck/byitself";
import { useDeck } from "../deck/DeckContext";
import { DeckFrame } from "../shell/DeckFrame";
import { type Entry, entryLines } from "@unitext/core/divide";
import { FORMATS, WRITABLE } from "@unitext/core/formats/catalogue";
import { HandingOver, withoutQuery } from "./HandingOver";
import { Languages, type NotesChoice, notesQuery } from "./Languages";
import { PAGES_SHOW } from "../ui/formats";

const NAMES: Record<string, string> = {
  slides: "slides",
  sections: "sections",
  "notes.slides": "slides with notes",
  "links.external": "links to the web",
  "links.internal": "links between slides",
  "links.broken": "broken links",
  hidden: "hidden slides",
  tables: "tables",
  charts: "charts",
  diagrams: "diagrams",
  pictures: "pictures",
  media: "films and sounds",
  formulas: "formulas",
  code: "program code",
  footnotes: "footnotes",
  comments: "comments",
  voices: "recorded voices",
  steps: "entrances",
  transitions: "transitions",
  foreign: "things of other programs",
  bindings: "linked data",
};

/** Formats whose pages can say where linked values come from. */
const SAY_SOURCES: readonly WritableFormat[] = ["pdf", "html", "docx"];

interface FormatProps {
  format: WritableFormat;
  ready: boolean;
  notes: NotesChoice | undefined;
  without: readonly PrivatePart[];
}

function Format({ format, ready, notes, without }: FormatProps) {
  const { deck, version, session } = useDeck();
  const [writing, setWriting] = useState<AbortController>();
  const busy = writing !== undefined;
  const [sheets, setSheets] = useState<Sheets>("slides");
  const [sources, setSources] = useState(false);
  const [turns, setTurns] = useState<Turns>();
  const pages = (format === "pdf" ? `&sheets=${sheets}` : "") + notesQuery(notes) + withoutQuery(without);
  const saysSources = SAY_SOURCES.includes(format) && deck.slides.some((slide) => bindingsOn(slide).length > 0);
  const { data: report, error } = useSWR(
    ready ? `/decks/${deck.id}/report?format=${format}${pages}&version=${version}` : null,
    (path: string) => get(path, Report),
    { keepPreviousData: true, revalidateOnFocus: false },
  );
  if (!report)
    return (
      <section className="hairline border p-4">
        {error ? (error as Error).message : `Looking at what ${FORMATS[format].label} can keep …`}
      </section>
    );
  const rows = Object.entries(NAMES).flatMap(([path, label]) => {
    const value = (tally: typeof report.from) =>
      path.split(".").reduce<unknown>((held, key) => (held as Record<string, unknown>)[key], tally) as number;
    const [before, after] = [value(report.from), value(report.to)];
    return before || after ? [{ label, before, after }] : [];
  });
  const losses = report.left.length;
  const save = async () => {
    const stop = new AbortController();
    setWriting(stop);
    try {
      await download(
        `/decks/${deck.id}/export?format=${format}${pages}${sources ? "&sources=true" : ""}${turnsQuery(turns)}`,
        stop.signal,
      );
      session.notify(`Wrote ${deck.properties.title}.${format}${format === "png" || format === "svg" ? ".zip" : ""}`);
    } catch (error) {
      session.notify(stop.signal.aborted ? `Cancelled writing ${FORMATS[format].label}` : (error as Error).message);
    } finally {
      setWriting(undefined);
    }
  };
  const list = (entries: readonly Entry[], label: string) =>
    entries.length > 0 && (
      <details className="mt-2">
        <summary className="cursor-pointer">
          {entries.length} {label}
        </summary>
        <ul className="max-h-40 list-disc overflow-auto pl-6 text-sm">
          {entryLines(entries).map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </details>
    );
  return (
    <section aria-labelledby={`format-${format}`} className="hairline min-w-0 border p-4">
      <div className="flex items-start gap-4 max-md:flex-wrap">
        <div className="min-w-0 flex-1">
          <h2 id={`format-${format}`} className="text-lg font-semibold">
            {FORMATS[format].label}
          </h2>
          <p className="quiet text-sm">{FORMATS[format].purpose}</p>
          {format === "pdf" && (
            <label className="mt-2 flex flex-wrap items-center gap-2 text-sm">
              Pages show
              <select
                className="select select-xs w-64 max-w-full"
                value={sheets}
                onChange={(event) => setSheets(event.target.value as Sheets)}
              >
                {Object.entries(PAGES_SHOW).map(([kind, label]) => (
                  <option key={kind} value={kind}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
          )}
          {format === "html" && <TurnsField turns={turns} onTurns={setTurns} />}
          {saysSources && (
            <label className="mt-2 flex flex-wrap items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="checkbox checkbox-xs"
                checked={sources}
                onChange={(event) => setSources(event.target.checked)}
              />
              Say where linked values come from
            </label>
          )}
        </div>
        {writing && (
          <button
            type="button"
            className="btn btn-ghost btn-sm gap-1 px-2 font-normal"
            onClick={() => writing.abort()}
            aria-label={`Cancel writing ${FORMATS[format].label}`}
          >
            Cancel
          </button>
        )}
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={busy || !ready}
          onClick={save}
          aria-label={`Download as ${FORMATS[format].label}`}
        >
          {busy ? "Writing …" : "Download"}
        </button>
      </div>
      <p className="mt-3">
        <strong className={losses ? "" : "text-success"}>
          {losses === 0 ? "Everything is kept." : `${losses} ${losses === 1 ? "thing is" : "things are"} left out.`}
        </strong>{" "}
        {report.adapted.length > 0 && `${report.adapted.length} adapted.`}
      </p>
      <table className="mt-2 text-sm">
        <caption className="sr-only">What the deck carries and what the file will carry</caption>
        <thead>
          <tr className="quiet">
            <th scope="col" className="pr-6 text-left font-normal">
              Carries
            </th>
            <th scope="col" className="px-3 text-right font-normal">
              deck
            </th>
            <th scope="col" className="px-3 text-right font-normal">
              file
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ label, before, after }) => (
            <tr key={label} className={after < before ? "text-error" : ""}>
              <th scope="row" className="pr-6 text-left font-normal">
                {label}
              </th>
              <td className="px-3 text-right">{before}</td>
              <td className="px-3 text-right">{after}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {list(
        report.left.map(({ slide, what, why }) => ({ slide, what, said: why })),
        "left out",
      )}
      {list(
        report.adapted.map(({ slide, what, how }) => ({ slide, what, said: how })),
        "adapted",
      )}
    </section>
  );
}

/** How a web page turns its slides by itself: the seconds as they were typed, and whether it begins again. */
interface Turns {
  seconds: string;
  loop: boolean;
}

const turnsQuery = (turns: Turns | undefined) =>
  turns ? `&auto=${delayFrom(turns.seconds)}${turns.loop ? "&loop=true" : ""}` : "";

/** Lets a web page play by itself, for a screen that people walk past. */
function TurnsField({ turns, onTurns }: { turns: Turns | undefined; onTurns: (turns: Turns | undefined) => void }) {
  return (
    <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox checkbox-xs"
          checked={turns !== undefined}
          onChange={({ target }) => onTurns(target.checked ? { seconds: String(DELAY), loop: true } : undefined)}
        />
        Plays by itself
      </label>
      {turns && (
        <>
          <label className="flex items-center gap-2">
            Seconds for each slide without a delay of its own
            <input
              className="input input-xs w-16 text-right"
              inputMode="decimal"
              value={turns.seconds}
              onChange={({ target }) => onTurns({ ...turns, seconds: target.value })}
            />
          </label>
          <label className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={turns.loop}
              onChange={({ target }) => onTurns({ ...turns, loop: target.checked })}
            />
            Begins again after the last slide
          </label>
        </>
      )}
    </div>
  );
}

/** Shows for each format what it keeps, adapts and leaves out, before anything is written. */
export default function Deliver() {
  const { deck, status, selected } = useDeck();
  const [playing, setPlaying] = useState(false);
  const [notes, setNotes] = useState<NotesChoice>();
  const [without, setWithout] = useState<readonly PrivatePart[]>([]);
  return (
    <DeckFrame place="Deliver">
      <div className="h-full overflow-auto p-4">
        <p className="mb-3 min-h-6 text-sm" role="status">
          {status === "saved"
            ? "What each file will hold of the deck, slide by slide, before it is written."
            : "The last changes are still being kept; files can be written in a moment."}
        </p>
        <p className="mb-3">
          <button
            type="button"
            title="The slides turn on their own, for a screen that people walk past"
            className="btn btn-sm"
            onClick={() => setPlaying(true)}
          >
            <TimerReset size={16} aria-hidden="true" /> Run by itself …
          </button>
          <Link
            title="The slides with their notes read aloud, for those who were not there"
            className="btn btn-sm ml-2"
            to={`/decks/${deck.id}/deliver/film`}
          >
            <Clapperboard size={16} aria-hidden="true" /> Film …
          </Link>
        </p>
        {playing && <ByItselfDialog from={selected.at(-1)} onClose={() => setPlaying(false)} />}
        <HandingOver without={without} onWithout={setWithout} />
        <Languages notes={notes} onNotes={setNotes} />
        <div className="grid max-w-5xl grid-cols-1 gap-4 xl:grid-cols-2">
          {WRITABLE.map((format) => (
            <Format key={format} format={format} ready={status === "saved"} notes={notes} without={without} />
          ))}
        </div>
      </div>
    </DeckFrame>
  );
}
