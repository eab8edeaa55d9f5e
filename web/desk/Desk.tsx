import { ImportResult, DeckList, type DeckRow, DeckState } from "@unitext/server/api";
import { OUTLINES } from "@unitext/core/generate";
import { metadataOf } from "@unitext/core/model";
import { Copy, Download, FilePlus2, FolderOpen, Layers, Trash2 } from "lucide-react";
import { type FormEvent, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate } from "react-router";
import useSWR, { mutate as mutateKey } from "swr";
import { z } from "zod";
import { get, post, remove } from "../api/client";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { clock } from "../ui/time";
import { Rail } from "../shell/Rail";
import { arrivalOf, isOpen, JobLines, noteReading, useJobs } from "../jobs";
import { reportLines } from "../ui/entries";
import { ACCEPTED } from "./accepted";
import { WriteDecks } from "./WriteDecks";
import { handOverDocument } from "../deck/pending";
import { matches } from "./matches";

const NewId = z.object({ id: z.string() });
const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

function FirstSlide({ state }: { state: DeckState }) {
  const metadata = useMemo(() => metadataOf(state.deck), [state]);
  const slide = state.deck.slides[0];
  return slide ? <Drawn slide={slide} metadata={metadata} deck={state.deck.id} /> : null;
}

function Drawn({
  slide,
  metadata,
  deck,
}: {
  slide: DeckState["deck"]["slides"][number];
  metadata: ReturnType<typeof metadataOf>;
  deck: string;
}) {
  const scene = useScene(slide, 1, metadata);
  return scene ? <SlideView scene={scene} deck={deck} label="First slide" /> : null;
}

function Row({
  row,
  onGone,
  onChanged,
  onError,
}: {
  row: DeckRow;
  onGone: () => void;
  onChanged: () => void;
  onError: (text: string) => void;
}) {
  const { data } = useSWR(`/decks/${row.id}@${row.version}`, () => get(`/decks/${row.id}/first`, DeckState), {
    revalidateOnFocus: false,
  });
  const act = (work: Promise<unknown>, then: () => void) => work.then(then, (error: Error) => onError(error.message));
  const navigate = useNavigate();
  const [over, setOver] = useState(false);
  return (
    <tr
      className={`hairline hover:bg-base-200 border-t align-middle ${over ? "outline-2 -outline-offset-2 outline-secondary" : ""}`}
      onDragOver={(event) => {
        if (!event.dataTransfer.types.includes("Files")) return;
        event.preventDefault();
        event.stopPropagation();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        // A document dropped on a deck is compared with the one that its slides were made from.
        const [file] = event.dataTransfer.files;
        setOver(false);
        if (!file || !/\.(docx|odt|html?|csv|tsv|opml|md|txt)$/i.test(file.name)) return;
        event.preventDefault();
        event.stopPropagation();
        handOverDocument(row.id, file);
        navigate(`/decks/${row.id}/write`);
      }}
    >
      <td className="w-32 py-2 pl-4">
        <Link
          to={`/decks/${row.id}/write`}
          tabIndex={-1}
          aria-hidden="true"
          className="hairline block aspect-video w-28 overflow-hidden border"
        >
          {data && <FirstSlide state={data} />}
        </Link>
      </td>
      <th scope="row" className="px-3 text-left font-normal">
        <Link
          to={`/decks/${row.id}/write`}
          title={row.title}
          className="line-clamp-2 text-base font-semibold underline-offset-4 hover:underline"
        >
          {row.title || "Untitled"}
        </Link>
        <p className="quiet text-sm">
          {row.file && `from ${row.file}, `}changed {when.format(new Date(row.changedAt))}
        </p>
      </th>
      <td className="px-3 text-right">{row.slides}</td>
      <td className="px-3 text-right">{clock(row.seconds)}</td>
      <td className="px-3">{row.language}</td>
      <td className="px-3 text-sm">{row.withoutNotes > 0 ? `${row.withoutNotes} without notes` : ""}</td>
      <td className="pr-4 pl-3 text-right whitespace-nowrap">
        <button
          type="button"
          className="btn btn-ghost btn-sm"
          aria-label={`Copy ${row.title}`}
          onClick={() => act(post(`/decks/${row.id}/copies`, {}, NewId), onChanged)}
        >
          <Copy size={16} aria-hidden="true" /> Copy
        </button>
        {row.right === "own" && (
          <button type="button" className="btn btn-ghost btn-sm" aria-label={`Delete ${row.title}`} onClick={onGone}>
            <Trash2 size={16} aria-hidden="true" /> Delete
          </button>
        )}
      </td>
    </tr>
  );
}

/** A deleted deck is only hidden for a while, so that it can be restored. */
interface Gone {
  row: DeckRow;
  timer: ReturnType<typeof setTimeout>;
}

export default function Desk() {
  const navigate = useNavigate();
  const { data, error, mutate } = useSWR("/decks", () => get("/decks", DeckList));
  const [pattern, setPattern] = useState("");
  const [making, setMaking] = useState(false);
  const [writing, setWriting] = useState(false);
  const [text, setText] = useState("");
  const [busy, setBusy] = useState("");
  const [problems, setProblems] = useState<string[]>([]);
  const [arrived, setArrived] = useState<{ name: string; id: string; lines: string[] }[]>([]);
  const [over, setOver] = useState(false);
  const [gone, setGone] = useState<Gone>();
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
    (row) =>
      row.id !== gone?.row.id && (matches(row.title, pattern) || (row.file !== null && matches(row.file, pattern))),
  );
  const complain = (message: string) => setProblems((list) => [...list, message]);

  async function bring(files: readonly File[]) {
    setProblems([]);
    const list: typeof arrived = [];
    const waiting = [...files];
    let taken = 0;
    const take = async (file: File): Promise<void> => {
      try {
        const { id, report, job } = await post(`/files?name=${encodeURIComponent(file.name)}`, file, ImportResult);
        if (job) {
          noteReading(job, id, file.name);
          if (files.length === 1) navigate(`/decks/${id}/${arrivalOf(file.name)}`, { state: { job } });
          return;
        }
        if (!report) return;
        list.push({ name: file.name, id, lines: reportLines(report) });
      } catch (reason) {
        complain(`${file.name}: ${(reason as Error).message}`);
      }
    };
    // A few files are uploaded at a time; the server reads them as jobs, also when this page is closed.
    const hand = async () => {
      for (let file = waiting.shift(); file; file = waiting.shift()) {
        setBusy(
          files.length === 1
            ? `Handing over ${file.name} …`
            : `Handing over ${files.length} files: ${++taken}, ${file.name} …`,
        );
        await take(file);
      }
    };
    await Promise.all([hand(), hand(), hand()]);
    setBusy("");
    setArrived(list);
    await mutate();
  }

  async function make(event: FormEvent) {
    event.preventDefault();
    setBusy("Making the deck …");
    try {
      const { id } = await post("/decks", { title: "", text }, NewId);
      navigate(`/decks/${id}/write`);
    } catch (reason) {
      complain((reason as Error).message);
      setBusy("");
    }
  }

  function setAside(row: DeckRow) {
    if (gone) {
      clearTimeout(gone.timer);
      void remove(`/decks/${gone.row.id}`);
    }
    const timer = setTimeout(() => {
      remove(`/decks/${row.id}`).then(
        () => {
          setGone((current) => (current?.row.id === row.id ? undefined : current));
          void mutate();
        },
        (reason: Error) => complain(reason.message),
      );
    }, 10000);
    setGone({ row, timer });
  }

  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: files may be dropped anywhere; the button beside does the same by keyboard.
    <div
      className="flex h-full"
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={(event) => event.currentTarget === event.target && setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        void bring([...event.dataTransfer.files]);
      }}
    >
      <Rail />
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
              Deleted “{gone.row.title}”.
              <button
                type="button"
                className="btn btn-ghost btn-xs text-primary"
                onClick={() => {
                  clearTimeout(gone.timer);
                  setGone(undefined);
                }}
              >
                Undo
              </button>
            </p>
          )}
          <JobLines jobs={jobs} />
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
          {making && (
            <form onSubmit={make} className="hairline bg-base-200 mb-4 border p-4">
              <label className="mb-1 block font-semibold" htmlFor="new-text">
                Paste an outline or a text
              </label>
              <p className="quiet mb-2 text-sm" id="new-text-help">
                A line that begins with # is a title slide or a section, one with ## is a slide; --- begins a new slide.
                Leave it empty for a blank title.
              </p>
              <div
                role="group"
                aria-label="Begin with an outline"
                className="mb-2 flex flex-wrap items-center gap-2 text-sm"
              >
                <span className="quiet">Or start with an outline for a</span>
                {Object.entries(OUTLINES).map(([key, { label, text: outline }]) => (
                  <button key={key} type="button" className="btn btn-xs" onClick={() => setText(outline)}>
                    {label.toLowerCase()}
                  </button>
                ))}
              </div>
              <textarea
                id="new-text"
                aria-describedby="new-text-help"
                autoFocus
                className="textarea h-48 w-full font-serif text-base"
                value={text}
                onChange={(event) => setText(event.target.value)}
              />
              <div className="mt-3 flex gap-2">
                <button type="submit" className="btn btn-primary btn-sm">
                  Make the deck
                </button>
                <button type="button" className="btn btn-ghost btn-sm" onClick={() => setMaking(false)}>
                  Cancel
                </button>
              </div>
            </form>
          )}
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
                <Row
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
                  Decks stand here. Begin with a text of your own, or drop a document (.docx, .odt, .md, .txt, .html,
                  .csv, .opml) or a deck (.pptx, .odp, .pdf, .json) anywhere on this page.
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
