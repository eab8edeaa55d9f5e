import { EngineList, ENGINES, Followers, TranslationMade } from "@unitext/server/api";
import { type FormEvent, useState } from "react";
import { Link, useNavigate } from "react-router";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { AlignDialog } from "./AlignDialog";
import { languageName } from "../ui/languages";

/** Languages that are offered by their names; others are typed as tags. */
const LANGUAGES = "ar bn da de en es fr he hi it ja ko nl pl pt sv ta th tr uk vi zh-Hans zh-Hant".split(" ");

const ENGINE_NAMES: Record<(typeof ENGINES)[number], string> = {
  none: "nothing: the words of the original stay until they are translated",
  local: "proposals of apertium on this machine",
  pseudo: "pseudo words, longer and accented, to see what will not fit",
  service: "proposals of a translation service",
};

/** Makes a deck in another language of the open one, and lists those that there are. */
export function NewTranslation() {
  const { deck } = useDeck();
  const navigate = useNavigate();
  const { data } = useSWR(`/decks/${deck.id}/followers`, (path: string) => get(path, Followers));
  const { data: engines } = useSWR("/engines", (path: string) => get(path, EngineList));
  const offered = ENGINES.filter((one) => one !== "service" || engines?.service);
  const [language, setLanguage] = useState(deck.language.startsWith("es") ? "en" : "es");
  const [engine, setEngine] = useState<(typeof ENGINES)[number]>("local");
  const [paragraphs, setParagraphs] = useState(false);
  const [aligning, setAligning] = useState(false);
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState("");
  async function make(event: FormEvent) {
    event.preventDefault();
    setBusy(true);
    setProblem("");
    try {
      const { id, remark } = await post(
        `/decks/${deck.id}/translations`,
        { language: language.trim(), engine, ...(paragraphs ? { segmentation: "paragraph" } : {}) },
        TranslationMade,
      );
      void navigate(`/decks/${id}/translate`, { state: { remark } });
    } catch (reason) {
      setProblem((reason as Error).message);
      setBusy(false);
    }
  }
  return (
    <div className="mx-auto max-w-xl px-6 py-12">
      <h2 className="mb-2 font-serif text-2xl">In another language</h2>
      <p className="quiet mb-6">
        The new deck follows this one: its slides, pictures, data and look come from here, and its words are its own.
        Notes, footnotes, links and linked values come along.
      </p>
      <form className="space-y-4" onSubmit={(event) => void make(event)}>
        <label className="block">
          Language
          <input
            className="input w-full"
            list="translation-languages"
            value={language}
            onChange={(event) => setLanguage(event.target.value)}
            aria-describedby="language-name"
          />
          <datalist id="translation-languages">
            {LANGUAGES.filter((tag) => tag !== deck.language).map((tag) => (
              <option key={tag} value={tag}>
                {languageName(tag)}
              </option>
            ))}
          </datalist>
          <span id="language-name" className="quiet text-sm">
            {languageName(language.trim())}, as a tag such as es or pt-BR
          </span>
        </label>
        <label className="block">
          Start with
          <select
            className="select w-full"
            value={engine}
            onChange={(event) => setEngine(ENGINES.find((one) => one === event.target.value) ?? "none")}
          >
            {offered.map((one) => (
              <option key={one} value={one}>
                {ENGINE_NAMES[one]}
                {one === "service" ? ` at ${engines?.service?.host}` : ""}
              </option>
            ))}
          </select>
          {engine === "service" ? (
            <span className="border-warning block border-l-4 pl-2 text-sm">
              All texts of the deck, its notes and the terms in them are sent to {engines?.service?.host}. Pictures and
              other files are not.
            </span>
          ) : (
            <span className="quiet text-sm">Nothing leaves this machine.</span>
          )}
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={paragraphs}
            onChange={(event) => setParagraphs(event.target.checked)}
          />
          Translate whole paragraphs instead of sentences
        </label>
        {problem && (
          <p role="alert" className="text-error">
            {problem}
          </p>
        )}
        <button type="submit" className="btn btn-primary" disabled={busy || !language.trim()}>
          {busy ? "Making the deck …" : "Make the deck"}
        </button>
      </form>
      <section className="mt-8">
        <h3 className="mb-1 font-semibold">Is it translated already, in an older deck?</h3>
        <p className="quiet mb-2 text-sm">
          Pair the texts of both decks. Your memory then proposes these translations, here and in every other deck.
        </p>
        <button type="button" className="btn btn-sm" onClick={() => setAligning(true)}>
          Fill the memory from another deck …
        </button>
        {aligning && <AlignDialog onClose={() => setAligning(false)} />}
      </section>
      {data && data.decks.length > 0 && (
        <section className="mt-8" aria-label="Decks that follow this one">
          <h3 className="mb-1 font-semibold">Decks that follow this one</h3>
          <ul>
            {data.decks.map(({ id, title }) => (
              <li key={id}>
                <Link className="underline-offset-4 hover:underline" to={`/decks/${id}/translate`}>
                  {title}
                </Link>
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
