import { DeckList } from "@unitext/server/api";
import { DOCUMENTS, listExtensions } from "@unitext/core/formats/catalogue";
import { Download, FilePlus2, FolderOpen, Layers } from "lucide-react";
import { useEffect, useRef, useState } from "react";
import { Link, useSearchParams } from "react-router";
import useSWR, { mutate as mutateKey } from "swr";
import { get } from "../api/client";
import { Rail } from "../shell/Rail";
import { useIncoming } from "../sources/useIncoming";
import { useFileDrop } from "../ui/useFileDrop";
import { isOpen, JobLines, useJobs } from "../jobs";
import { ACCEPTED, ACCEPTED_KINDS } from "./accepted";
import { DeskRow } from "./DeskRow";
import { matches } from "./matches";
import { NewFromText } from "./NewFromText";
import { useBroughtFiles } from "./useBroughtFiles";
import { useDeletedDeck } from "./useDeletedDeck";
import { WriteDecks } from "./WriteDecks";

/** The Desk: all decks, what is being read, and the ways to begin. */
export default function Desk() {
  const { data, error, mutate } = useSWR("/decks", () => get("/decks", DeckList));
  const [pattern, setPattern] = useState("");
  const [asked, setAsked] = useSearchParams();
  const making = asked.has("new");
  const setMaking = (next: boolean) => setAsked(next ? { new: "" } : {}, { replace: true });
  const [writing, setWriting] = useState(false);
  const [busy, setBusy] = useState("");
  const [problems, setProblems] = useState<string[]>([]);
  const complain = (message: string) => setProblems((list) => [...list, message]);
  const incoming = useIncoming(navigator.language);
  const { arrived, broughtSources, bring } = useBroughtFiles({
    onBusy: setBusy,
    onBegin: () => setProblems([]),
    onProblem: complain,
    onDone: () => mutate(),
    onWorkbooks: incoming.receive,
  });
  const { gone, setAside, restore } = useDeletedDeck(() => void mutate(), complain);
  const { over, handlers } = useFileDrop((files) => void bring(files));
  const chooser = useRef<HTMLInputElement>(null);
  const jobs = useJobs();
  const mutateJobs = () => mutateKey("/jobs");
  const running = jobs.filter(isOpen).length;
  // A dropped file shows its first slides in Write or Arrange: these places are loaded before they are needed.
  useEffect(() => {
    const timer = setTimeout(() => void Promise.all([import("../arrange/Arrange"), import("../write/Write")]), 400);
    return () => clearTimeout(timer);
  }, []);
  // The Desk changes when a job starts or ends.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is read again when the number of jobs changes, not when a function does.
  useEffect(() => void mutate(), [jobs.length, running]);
  const rows = data?.decks.filter(
    (row) => row.id !== gone?.id && (matches(row.title, pattern) || (row.file !== null && matches(row.file, pattern))),
  );
  return (
    <div className="flex h-full" {...handlers}>
      <Rail />
      {incoming.dialog}
      <main className={`min-w-0 flex-1 overflow-auto ${over ? "outline-4 -outline-offset-4 outline-primary" : ""}`}>
        <header className="flex flex-wrap items-center gap-3 px-6 pt-6 pb-4">
          <h1 className="mr-auto font-serif text-2xl">Desk</h1>
          <label className="input input-sm w-64">
            <span className="sr-only">Find a deck by its name; * stands for anything</span>
            <input
              type="search"
              placeholder="Find by name, * for anything"
              value={pattern}
              onChange={(event) => setPattern(event.target.value)}
            />
          </label>
          <Link
            className="btn btn-sm"
            to={`/gather${pattern.trim() ? `?names=${encodeURIComponent(pattern.trim())}` : ""}`}
          >
            <Layers size={16} aria-hidden="true" /> Gather decks
          </Link>
          <button type="button" className="btn btn-sm" disabled={!rows?.length} onClick={() => setWriting(true)}>
            <Download size={16} aria-hidden="true" /> Write decks
          </button>
          <button type="button" className="btn btn-primary btn-sm" onClick={() => setMaking(true)}>
            <FilePlus2 size={16} aria-hidden="true" /> New from text
          </button>
          <button type="button" className="btn btn-sm" onClick={() => chooser.current?.click()}>
            <FolderOpen size={16} aria-hidden="true" /> Bring in files
          </button>
          <input
            ref={chooser}
            type="file"
            multiple
            accept={ACCEPTED}
            className="hidden"
            aria-label="Files to bring in"
            tabIndex={-1}
            onChange={(event) => void bring([...(event.target.files ?? [])]).then(() => (event.target.value = ""))}
          />
        </header>
        <div className="px-6">
          <p role="status" className="min-h-6 text-sm">
            {busy || (over ? "Drop the files to bring them in." : "")}
          </p>
          {problems.map((problem) => (
            <p key={problem} role="alert" className="border-error text-base-content mb-2 border-l-4 px-3 py-1">
              {problem}
            </p>
          ))}
          {gone && (
            <p role="status" className="mb-2 flex items-center gap-3 border-l-4 border-secondary px-3 py-1">
              Deleted “{gone.title}”.
              <button type="button" className="btn btn-ghost btn-xs text-primary" onClick={restore}>
                Undo
              </button>
            </p>
          )}
          <JobLines jobs={jobs} />
          {broughtSources.map((line) => (
            <p key={line} className="border-success mb-2 border-l-4 px-3 py-1">
              {line}
            </p>
          ))}
          {arrived.map(({ name, id, lines }) => (
            <div key={id} className="border-success mb-2 border-l-4 px-3 py-1">
              <p>
                {name} is now on the Desk.{" "}
                <Link className="text-primary underline" to={`/decks/${id}/arrange`}>
                  Open it
                </Link>
              </p>
              {lines.length > 0 && (
                <details>
                  <summary className="cursor-pointer text-sm">
                    {lines.length} things could not be taken as they were
                  </summary>
                  <ul className="list-disc pl-6 text-sm">
                    {lines.map((line) => (
                      <li key={line}>{line}</li>
                    ))}
                  </ul>
                </details>
              )}
            </div>
          ))}
          {writing && rows && (
            <WriteDecks
              rows={rows}
              pattern={pattern}
              onClose={() => setWriting(false)}
              onBegun={() => void mutateJobs()}
            />
          )}
          {making && <NewFromText onClose={() => setMaking(false)} onProblem={complain} onBusy={setBusy} />}
          {error && <p role="alert">{(error as Error).message}</p>}
        </div>
        {rows && rows.length > 0 && (
          <table className="w-full">
            <caption className="sr-only">Decks, last changed first</caption>
            <thead>
              <tr className="quiet text-sm">
                <td className="pl-4" />
                <th scope="col" className="px-3 text-left font-normal">
                  Deck
                </th>
                <th scope="col" className="px-3 text-right font-normal">
                  Slides
                </th>
                <th scope="col" className="px-3 text-right font-normal">
                  Minutes
                </th>
                <th scope="col" className="px-3 text-left font-normal">
                  Language
                </th>
                <th scope="col" className="px-3 text-left font-normal">
                  To do
                </th>
                <td />
              </tr>
            </thead>
            <tbody>
              {rows.map((row) => (
                <DeskRow
                  key={row.id}
                  row={row}
                  onGone={() => setAside(row)}
                  onChanged={() => void mutate()}
                  onError={complain}
                />
              ))}
            </tbody>
          </table>
        )}
        {rows && rows.length === 0 && (
          <div className="mx-auto max-w-md px-6 py-16 text-center">
            {pattern ? (
              <p>No deck has a name like “{pattern}”.</p>
            ) : (
              <>
                <p className="mb-4">
                  No decks yet. Begin with a text of your own, or drop files anywhere on this page: documents (
                  {listExtensions(DOCUMENTS, "or")}) or decks (
                  {listExtensions(
                    ACCEPTED_KINDS.filter((kind) => !(DOCUMENTS as readonly string[]).includes(kind)),
                    "or",
                  )}
                  ).
                </p>
                <button type="button" className="btn btn-primary" onClick={() => setMaking(true)}>
                  New from text
                </button>
              </>
            )}
          </div>
        )}
      </main>
    </div>
  );
}
