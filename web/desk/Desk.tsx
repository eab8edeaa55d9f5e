import { DOCUMENTS, isDocumentName, listExtensions } from "@unitext/core/formats/catalogue";
import { Begun, DeckList, type DeckRow } from "@unitext/server/api";
import { Archive, ArchiveRestore, Download, FilePlus2, FolderOpen, Inbox, Layers, MoreHorizontal } from "lucide-react";
import { lazy, Suspense, useDeferredValue, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";
import useSWR, { mutate as mutateKey } from "swr";
import { get, post } from "../api/client";
import { useMe } from "../api/entrance";
import { handOverDocument } from "../deck/pending";
import { isOpen, JobLines, useJobs } from "../jobs";
import { useCommands } from "../keys";
import { FirstUse } from "../shell/FirstUse";
import type { SharedThing } from "../sharing";
import { Rail } from "../shell/Rail";
import { useIncoming } from "../sources/useIncoming";
import { MenuButton } from "../ui/Menu";
import { useFileDrop } from "../ui/useFileDrop";
import { readable, unreadableSentence } from "../ui/droppedfiles";
import { useFileChooser } from "../ui/useFileChooser";
import { ACCEPTED, ACCEPTED_KINDS } from "./accepted";
import { DeckTable } from "./DeckTable";
import { FolderBar, type Shelf } from "./FolderBar";
import { FoundSlides } from "./FoundSlides";
import { matches } from "./matches";
import { NewFromText } from "./NewFromText";
import { type Order, sorted } from "./order";
import { SelectionBar } from "./SelectionBar";
import { useBroughtFiles } from "./useBroughtFiles";
import { useDeskActs } from "./useDeskActs";
import { usePastedText } from "./usePastedText";
import { WriteDecks } from "./WriteDecks";

const ShareDialog = lazy(() => import("../sharing/ShareDialog").then((module) => ({ default: module.ShareDialog })));

/** A document that is dropped again: it may be a newer version of the one that a deck was made from. */
interface Newer {
  file: File;
  row: DeckRow;
}

/** The Desk: all decks, what is being read, and the ways to begin. */
export default function Desk() {
  const { data, error, mutate } = useSWR("/decks", () => get("/decks", DeckList));
  const navigate = useNavigate();
  const [pattern, setPattern] = useState("");
  const words = useDeferredValue(pattern.trim());
  const [shelf, setShelf] = useState<Shelf>({ kind: "all" });
  const [order, setOrder] = useState<{ by: Order; turned: boolean }>({ by: "changed", turned: false });
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [asked, setAsked] = useSearchParams();
  const [making, setMaking] = useState(asked.has("new"));
  // The address with "new" opens the form from every place; it is not kept, so that going back does not open it again.
  useEffect(() => {
    if (!asked.has("new")) return;
    setMaking(true);
    setAsked({}, { replace: true });
  }, [asked, setAsked]);
  const [writing, setWriting] = useState<readonly DeckRow[]>();
  const [busy, setBusy] = useState("");
  const [problems, setProblems] = useState<string[]>([]);
  const [newer, setNewer] = useState<Newer>();
  const [sharing, setSharing] = useState<SharedThing>();
  const me = useMe();
  const complain = (message: string) => setProblems((list) => [...list, message]);
  const incoming = useIncoming(navigator.language);
  const acts = useDeskActs(() => mutate(), complain);
  const { arrived, broughtSources, bring, isLeaving } = useBroughtFiles({
    onBusy: setBusy,
    onBegin: () => setProblems([]),
    onProblem: complain,
    onDone: () => mutate(),
    onWorkbooks: incoming.receive,
  });
  /** Takes files; a document from which a deck was made may be its next version. */
  const take = (files: readonly File[]) => {
    const [file] = files;
    const base = file?.name.replace(/\.[^.]*$/, "");
    const row =
      files.length === 1 && file && isDocumentName(file.name)
        ? data?.decks.find(
            (deck) =>
              deck.generated && (deck.file ?? deck.title) === base && (deck.right === "own" || deck.right === "edit"),
          )
        : undefined;
    if (file && row) setNewer({ file, row });
    else void bring(files);
  };
  const { over, handlers } = useFileDrop(take, complain);
  const pasted = usePastedText(() => setMaking(true));
  const chooser = useFileChooser({
    label: "Files to bring in",
    accept: ACCEPTED,
    multiple: true,
    onFiles: (given) =>
      void readable(given).then(({ files, unreadable }) => {
        if (files.length) take(files);
        const problem = unreadableSentence(unreadable);
        if (problem) complain(problem);
      }),
  });
  const scroller = useRef<HTMLElement>(null);
  const jobs = useJobs();
  const mutateJobs = () => mutateKey("/jobs");
  const running = jobs.filter(isOpen).length;
  /** Whether the Desk has been drawn before. */
  const listed = useRef(false);
  /** Writes all decks, workbooks, designs, terms and translations that the person owns; the list of jobs has the file. */
  const writeArchive = async () => {
    try {
      await post("/archives", {}, Begun);
      await mutateJobs();
    } catch (reason) {
      complain((reason as Error).message);
    }
  };
  useCommands({ newDeck: () => setMaking(true) });
  // A dropped file shows its first slides in Write or Arrange: these places are loaded before they are needed.
  useEffect(() => {
    const timer = setTimeout(() => void Promise.all([import("../arrange/Arrange"), import("../write/Write")]), 400);
    return () => clearTimeout(timer);
  }, []);
  // The Desk changes when a job starts or ends.
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is read again when the number of jobs changes, not when a function does.
  useEffect(() => {
    if (listed.current && !isLeaving.current) void mutate();
    listed.current = true;
  }, [jobs.length, running]);

  const rows = useMemo(() => {
    const all = shelf.kind === "bin" ? data?.binned : data?.decks;
    const here = all?.filter(
      (row) =>
        (shelf.kind !== "folder" || row.folder === shelf.id) &&
        (matches(row.title, pattern) || (row.file !== null && matches(row.file, pattern))),
    );
    return here && sorted(here, order.by, order.turned);
  }, [data, shelf, pattern, order]);
  const selected = rows?.filter(({ id }) => chosen.has(id)) ?? [];
  const show = (next: Shelf) => {
    setShelf(next);
    setChosen(new Set());
  };
  return (
    <div className="flex h-full max-md:flex-col-reverse" {...handlers}>
      <Rail />
      {incoming.dialog}
      <Suspense>{sharing && <ShareDialog thing={sharing} onClose={() => setSharing(undefined)} />}</Suspense>
      <main
        ref={scroller}
        className={`relative min-h-0 min-w-0 flex-1 overflow-auto ${over ? "outline-4 -outline-offset-4 outline-primary" : ""}`}
      >
        <header className="flex flex-wrap items-center gap-2 px-6 pt-6 pb-3 max-md:px-3">
          <h1 className="mr-auto font-serif text-2xl">Desk</h1>
          <label className="input input-sm w-72">
            <span className="sr-only">Find decks by name, with * for anything, or slides by their words</span>
            <input
              type="search"
              placeholder="Find by name or by words on slides"
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
          <button
            type="button"
            title="Writes all decks of the list as files of one format"
            className="btn btn-sm"
            disabled={!rows?.length || shelf.kind === "bin"}
            onClick={() => setWriting(rows)}
          >
            <Download size={16} aria-hidden="true" /> Write decks
          </button>
          <button
            type="button"
            title="Begins a deck from an outline that you type or paste"
            className="btn btn-primary btn-sm"
            onClick={() => setMaking(true)}
          >
            <FilePlus2 size={16} aria-hidden="true" /> New from text
          </button>
          <button
            type="button"
            title="Opens documents, decks, workbooks, text with pictures, or an archive"
            className="btn btn-sm"
            onClick={chooser.choose}
          >
            <FolderOpen size={16} aria-hidden="true" /> Bring in files
          </button>
          <MenuButton
            label="More for the whole Desk"
            className="btn btn-sm btn-square"
            acts={[
              { label: "Collect decks from others …", icon: Inbox, act: () => navigate("/collections") },
              undefined,
              { label: "Write an archive of everything", icon: Archive, act: () => void writeArchive() },
              { label: "Bring in an archive …", icon: ArchiveRestore, act: chooser.choose },
            ]}
          >
            <MoreHorizontal size={16} aria-hidden="true" />
          </MenuButton>
          {chooser.input}
        </header>
        <div className="px-6">
          <p role="status" className="min-h-6 text-sm">
            {busy || (over ? "Drop the files to bring them in." : "")}
          </p>
          <FirstUse place="Desk" />
          {me?.demo && (
            <p className="quiet mb-1 text-sm">
              This is the demo: whoever uses this computer is “{me.name}”, without a password. Other computers cannot
              enter it.
            </p>
          )}
          {me?.role === "guest" && (
            <p className="border-primary mb-2 border-l-4 px-3 py-1">
              You came by a link, as {me.name}. For a Desk of your own{" "}
              <a className="text-primary underline" href="/sign-in">
                sign in
              </a>
              .
            </p>
          )}
          {problems.map((problem) => (
            <p key={problem} role="alert" className="border-error text-base-content mb-2 border-l-4 px-3 py-1">
              {problem}
            </p>
          ))}
          {acts.done && (
            <p role="status" className="border-secondary mb-2 flex items-center gap-3 border-l-4 px-3 py-1">
              {acts.done.words}.
              {acts.done.undo && (
                <button type="button" className="btn btn-ghost btn-xs text-primary" onClick={() => void acts.undo()}>
                  Undo
                </button>
              )}
            </p>
          )}
          {newer && (
            <NewerDocument
              newer={newer}
              onCompare={() => {
                handOverDocument(newer.row.id, newer.file);
                navigate(`/decks/${newer.row.id}/write`);
              }}
              onNew={() => {
                setNewer(undefined);
                void bring([newer.file]);
              }}
            />
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
          {writing && (
            <WriteDecks
              rows={writing}
              pattern={selected.length ? "" : pattern}
              onClose={() => setWriting(undefined)}
              onBegun={() => void mutateJobs()}
            />
          )}
          {making && (
            <NewFromText first={pasted} onClose={() => setMaking(false)} onProblem={complain} onBusy={setBusy} />
          )}
          {error && <p role="alert">{(error as Error).message}</p>}
        </div>
        {data && (
          <FolderBar
            folders={data.folders}
            decks={data.decks}
            binned={data.binned.length}
            shelf={shelf}
            acts={acts}
            onShelf={show}
            onShare={(id, name) => setSharing({ path: `/folders/${id}`, name, folder: true })}
          />
        )}
        {shelf.kind === "bin" && (
          <p className="quiet px-6 pb-2 text-sm">Decks are kept here for 30 days, then they are deleted for good.</p>
        )}
        {selected.length > 0 && data && (
          <SelectionBar
            rows={selected}
            folders={data.folders}
            acts={acts}
            onWrite={() => {
              setWriting(selected);
              scroller.current?.scrollTo({ top: 0 });
            }}
            onClear={() => setChosen(new Set())}
          />
        )}
        {rows && data && rows.length > 0 && (
          <DeckTable
            rows={rows}
            folders={data.folders}
            chosen={chosen}
            order={order.by}
            turned={order.turned}
            scroller={scroller}
            acts={acts}
            onShare={({ id, title }) => setSharing({ path: `/decks/${id}`, name: title || "Untitled", folder: false })}
            onOrder={(by) => setOrder({ by, turned: by === order.by && !order.turned })}
            onChoose={setChosen}
          />
        )}
        {rows && rows.length === 0 && (
          <div className={`mx-auto max-w-md px-6 text-center ${words.length > 1 ? "py-4" : "py-16"}`}>
            {pattern ? (
              <p>No deck has a name like “{pattern}”.</p>
            ) : shelf.kind === "bin" ? (
              <p>The bin is empty.</p>
            ) : shelf.kind === "folder" ? (
              <p>Nothing is in this folder yet. Drag decks onto its name, or choose “Move to” in their menu.</p>
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
        {words.length > 1 && shelf.kind !== "bin" && data && <FoundSlides words={words} decks={data.decks} />}
      </main>
    </div>
  );
}

/** Asks whether a document that was dropped again is a newer version of the one that a deck was made from. */
function NewerDocument({
  newer: { file, row },
  onCompare,
  onNew,
}: {
  newer: Newer;
  onCompare: () => void;
  onNew: () => void;
}) {
  return (
    <div role="status" className="border-primary mb-2 border-l-4 px-3 py-1">
      <p className="mb-1">
        “{row.title}” was made from a document of this name, {file.name}. A newer version shows what it would change,
        before anything is taken.
      </p>
      <button type="button" className="btn btn-primary btn-sm mr-2" onClick={onCompare}>
        Take it as a newer version
      </button>
      <button type="button" className="btn btn-sm" onClick={onNew}>
        Make a new deck
      </button>
    </div>
  );
}
