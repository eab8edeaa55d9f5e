import { LinkFace, type LinkOpening, Opened } from "@unitext/server/api";
import { useEffect, useState } from "react";
import { useParams } from "react-router";
import { mutate } from "swr";
import { get, post } from "../api/client";
import { languageName } from "../ui/languages";
import { CopyOnly } from "./CopyOnly";
import { LinkQuestion } from "./LinkQuestion";
import { Viewer } from "./Viewer";

/** The page of a link: asks for a pass phrase or a name where it has to, then shows what was shared. */
export default function View() {
  const { token = "" } = useParams();
  const [face, setFace] = useState<LinkFace>();
  const [opened, setOpened] = useState<Opened>();
  const [chosen, setChosen] = useState<string>();
  const [problem, setProblem] = useState("");
  const open = async (answer: LinkOpening) => {
    try {
      setOpened(await post(`/links/${token}/opening`, answer, Opened));
      // Whoever came as a stranger is a guest now.
      void mutate("/entrance");
      setProblem("");
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each link.
  useEffect(() => {
    document.title = "Unitext";
    get(`/links/${token}`, LinkFace).then(
      async (found) => {
        if (found.needsPhrase || found.needsName) setFace(found);
        else await open({});
      },
      (error: Error) => setProblem(error.message),
    );
  }, [token]);
  if (!opened)
    return (
      <LinkQuestion
        title={face ? "Open what was shared with you" : problem ? "The link does not open" : "One moment …"}
        face={face}
        problem={problem}
        onAnswer={(answer) => void open(answer)}
      />
    );
  const { decks, right } = opened;
  const deck = decks.find(({ id }) => id === chosen) ?? decks[0];
  if (!deck)
    return (
      <LinkQuestion
        title="Nothing is here yet"
        problem="The folder that was shared with you is empty. Come back later."
        onAnswer={() => undefined}
      />
    );
  const choice = decks.length > 1 && (
    <label className="flex min-w-0 items-center gap-2 text-sm">
      <span className="sr-only">Deck</span>
      <select
        className="select select-sm w-72 max-w-[60vw] truncate"
        value={deck.id}
        onChange={({ target }) => setChosen(target.value)}
      >
        {decks.map(({ id, title, language }) => (
          <option key={id} value={id}>
            {title || "Untitled"} · {languageName(language)}
          </option>
        ))}
      </select>
    </label>
  );
  if (right === "copy") return <CopyOnly deck={deck} choice={choice} />;
  return <Viewer key={deck.id} deck={deck.id} choice={choice} />;
}
