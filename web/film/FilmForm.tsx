import { expectedSeconds, FILM_FORMATS, FILM_WIDTHS, type FilmFormat, spokenBy } from "@unitext/core/film";
import { Begun, DeckLanguages, type FilmRequest, FilmTools } from "@unitext/server/api";
import { Clapperboard, TriangleAlert } from "lucide-react";
import { useState } from "react";
import useSWR, { mutate } from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { languageName } from "../ui/languages";
import { clock } from "../ui/time";

const FORMATS: Record<FilmFormat, string> = { mp4: "MP4, for every player", webm: "WebM, for web pages" };

/** What is to be installed for films, as a sentence with its line. */
function Missing({ tools }: { tools: FilmTools }) {
  const packages = [...(tools.local || tools.service ? [] : ["espeak-ng"]), ...(tools.ffmpeg ? [] : ["ffmpeg"])];
  if (!packages.length) return null;
  return (
    <p role="alert" className="border-warning mb-3 border-l-4 pl-3 text-sm">
      {tools.ffmpeg
        ? "No voice is installed on this machine: films are silent, or have your own voice. "
        : "Films need ffmpeg, which is not installed on this machine. "}
      Install it with <code>apt-get install {packages.join(" ")}</code>, then reload this page.
    </p>
  );
}

/** The choices for a film, what to look at before, and the button that makes it. `busy` while one is being made. */
export function FilmForm({ busy }: { busy: boolean }) {
  const { deck, session, status } = useDeck();
  const { data: tools } = useSWR("/film-tools", (path: string) => get(path, FilmTools));
  const { data: languages } = useSWR(`/decks/${deck.id}/languages`, (path: string) => get(path, DeckLanguages));
  const [format, setFormat] = useState<FilmFormat>("mp4");
  const [width, setWidth] = useState<FilmRequest["width"]>(1280);
  const [chosenVoice, setVoice] = useState<FilmRequest["voice"]>();
  const [left, setLeft] = useState<readonly string[]>([]);
  const [sending, setSending] = useState(false);
  const shown = deck.slides.filter(({ hidden }) => !hidden);
  const spoken = shown.map((slide) => spokenBy(slide, deck.rate, deck.language));
  const count = (kind: (typeof spoken)[number]) => spoken.filter((one) => one === kind).length;
  const [silent, thin] = [count("silent"), count("thin")];
  const seconds = shown.reduce((sum, slide) => sum + expectedSeconds(slide, deck.rate, deck.language) + 1.2, 0);
  const decks = languages?.decks ?? [{ id: deck.id, language: deck.language }];
  const voices: { value: FilmRequest["voice"]; label: string }[] = [
    ...(tools?.service ? [{ value: "service" as const, label: `The voice of ${tools.service}` }] : []),
    ...(tools?.local ? [{ value: "local" as const, label: "The voice of this machine" }] : []),
    { value: "none", label: "No voice, captions only" },
  ];
  const voice = chosenVoice ?? voices[0]?.value ?? "none";

  async function make() {
    setSending(true);
    try {
      const captions = decks.map(({ id }) => id).filter((id) => !left.includes(id));
      await post(`/decks/${deck.id}/films`, { format, width, voice, captions } satisfies FilmRequest, Begun);
      await mutate("/jobs");
    } catch (error) {
      session.notify((error as Error).message);
    } finally {
      setSending(false);
    }
  }
  return (
    <section aria-labelledby="film-form" className="hairline border p-4">
      <h2 id="film-form" className="mb-2 text-lg font-semibold">
        Make the film
      </h2>
      {tools && <Missing tools={tools} />}
      <p className="mb-2 text-sm">
        {shown.length} {shown.length === 1 ? "slide" : "slides"}, about <strong>{clock(seconds)}</strong> minutes.
        Hidden slides are left out.
      </p>
      {(silent > 0 || thin > 0) && (
        <ul className="mb-3 text-sm" aria-label="Look at these before">
          {silent > 0 && (
            <li className="flex gap-2">
              <TriangleAlert size={16} aria-hidden="true" className="mt-0.5 shrink-0" />
              {silent === 1
                ? "1 slide has no notes and is shown in silence"
                : `${silent} slides have no notes and are shown in silence`}
            </li>
          )}
          {thin > 0 && (
            <li className="flex gap-2">
              <TriangleAlert size={16} aria-hidden="true" className="mt-0.5 shrink-0" />
              {thin === 1
                ? "The notes of 1 slide say little about it"
                : `The notes of ${thin} slides say little about them`}
            </li>
          )}
        </ul>
      )}
      <div className="grid grid-cols-[auto_1fr] items-center gap-x-3 gap-y-2 text-sm">
        <label htmlFor="film-voice">Voice</label>
        <select
          id="film-voice"
          className="select select-sm w-full"
          value={voice}
          onChange={({ target }) => setVoice(target.value as FilmRequest["voice"])}
        >
          {!tools && <option value={voice}>Looking for voices …</option>}
          {(tools ? voices : []).map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
        <label htmlFor="film-format">Format</label>
        <select
          id="film-format"
          className="select select-sm w-full"
          value={format}
          onChange={({ target }) => setFormat(target.value as FilmFormat)}
        >
          {FILM_FORMATS.map((one) => (
            <option key={one} value={one}>
              {FORMATS[one]}
            </option>
          ))}
        </select>
        <label htmlFor="film-width">Size</label>
        <select
          id="film-width"
          className="select select-sm w-full"
          value={width}
          onChange={({ target }) => setWidth(Number(target.value) as FilmRequest["width"])}
        >
          {FILM_WIDTHS.map((one) => (
            <option key={one} value={one}>
              {one} × {Math.round((one * deck.page.height) / deck.page.width / 2) * 2}
            </option>
          ))}
        </select>
      </div>
      <fieldset className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
        <legend className="float-left mr-3">Captions</legend>
        {decks.map(({ id, language }) => (
          <label key={id} className="flex items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-xs"
              checked={!left.includes(id)}
              onChange={({ target }) => setLeft(target.checked ? left.filter((one) => one !== id) : [...left, id])}
            />
            {languageName(language)}
          </label>
        ))}
      </fieldset>
      {voice === "service" && tools?.service && (
        <p className="quiet mt-2 text-sm">The notes are sent to {tools.service}, which speaks them.</p>
      )}
      <button
        type="button"
        className="btn btn-primary mt-4 w-full"
        disabled={!tools?.ffmpeg || busy || sending || status !== "saved" || !shown.length}
        onClick={() => void make()}
      >
        <Clapperboard size={18} aria-hidden="true" /> {busy ? "Being made …" : "Make the film"}
      </button>
    </section>
  );
}
