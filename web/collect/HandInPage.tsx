import { CollectionFace, DeckList, Receipt } from "@unitext/server/api";
import { useEffect, useState } from "react";
import { useParams } from "react-router";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useEntrance } from "../api/entrance";
import { EntranceFrame } from "../people/EntranceFrame";
import { useFileDrop } from "../ui/useFileDrop";
import { ReceiptView } from "./ReceiptView";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "full", timeStyle: "short" });
/** How often a receipt is asked whether the deck was read, in milliseconds. */
const AGAIN = 700;

/** The page on which somebody hands in: the parts of the name, a file or a deck of the house, and then a receipt. */
export default function HandInPage() {
  const { token = "" } = useParams();
  const path = `/hand-in/${token}`;
  const { data: face, error } = useSWR(path, () => get(path, CollectionFace), { shouldRetryOnError: false });
  const me = useEntrance().data?.me;
  const isMember = me !== undefined && me !== null && me.role !== "guest";
  const { data: desk } = useSWR(isMember ? "/decks" : null, () => get("/decks", DeckList));
  const [parts, setParts] = useState<Record<number, string>>({});
  const [file, setFile] = useState<File>();
  const [deck, setDeck] = useState("");
  const [problem, setProblem] = useState("");
  const [sending, setSending] = useState(false);
  const [receipt, setReceipt] = useState<Receipt>();
  const { over, handlers } = useFileDrop(([first]) => setFile(first), setProblem);
  useEffect(() => {
    if (receipt?.state !== "waiting") return;
    const timer = setTimeout(() => {
      get(`/receipts/${receipt.code}`, Receipt).then(setReceipt, (reason: Error) => setProblem(reason.message));
    }, AGAIN);
    return () => clearTimeout(timer);
  }, [receipt]);
  if (error)
    return (
      <EntranceFrame title="This link leads nowhere">
        <p role="alert">{(error as Error).message}</p>
      </EntranceFrame>
    );
  if (!face) return <EntranceFrame title="One moment …">{null}</EntranceFrame>;
  if (receipt)
    return (
      <EntranceFrame title="Handed in">
        <ReceiptView receipt={receipt} onAgain={() => setReceipt(undefined)} />
      </EntranceFrame>
    );
  const late = face.dueAt !== null && Date.now() > Date.parse(face.dueAt);
  const handIn = async () => {
    setSending(true);
    setProblem("");
    const given = face.parts.map((_, nth) => parts[nth] ?? "");
    try {
      if (deck) setReceipt(await post(`${path}/decks`, { parts: given, deck }, Receipt));
      else if (file) {
        const query = [["name", file.name], ...given.map((part) => ["part", part])];
        setReceipt(await post(`${path}/files?${new URLSearchParams(query)}`, file, Receipt));
      }
    } catch (reason) {
      setProblem((reason as Error).message);
    }
    setSending(false);
  };
  return (
    <EntranceFrame
      title={face.title}
      lead={
        <>
          {face.by} collects. {face.dueAt && <>Due {when.format(new Date(face.dueAt))}. </>}
          {late && "What is handed in now is marked as late."}
        </>
      }
    >
      {face.closed ? (
        <p role="alert">This collection is closed. Ask {face.by} to open it.</p>
      ) : (
        <form
          {...handlers}
          className={over ? "outline-4 outline-primary" : ""}
          onSubmit={(event) => {
            event.preventDefault();
            void handIn();
          }}
        >
          {face.parts.map(({ label, kind }, nth) => (
            <label key={label} className="mb-3 block text-sm">
              {label}
              <input
                required
                maxLength={80}
                inputMode={kind === "number" ? "numeric" : "text"}
                className="input mt-1 flex w-full"
                value={parts[nth] ?? ""}
                onChange={({ target }) => setParts({ ...parts, [nth]: target.value })}
              />
            </label>
          ))}
          {isMember && desk && desk.decks.length > 0 && (
            <label className="mb-3 block text-sm">
              A deck of yours
              <select
                className="select mt-1 flex w-full truncate"
                value={deck}
                onChange={({ target }) => setDeck(target.value)}
              >
                <option value="">none, a file</option>
                {desk.decks.map(({ id, title }) => (
                  <option key={id} value={id}>
                    {title || "Untitled"}
                  </option>
                ))}
              </select>
            </label>
          )}
          {!deck && (
            <label className="mb-3 block text-sm">
              File ({face.formats.map((format) => `.${format}`).join(", ")}), or drop it here
              <input
                type="file"
                required={file === undefined}
                accept={face.formats.map((format) => `.${format}`).join(",")}
                className="file-input mt-1 flex w-full"
                onChange={({ target }) => setFile(target.files?.[0])}
              />
              {file && <span className="mt-1 block font-semibold">{file.name}</span>}
            </label>
          )}
          {problem && (
            <p role="alert" className="border-error mb-3 border-l-4 pl-2">
              {problem}
            </p>
          )}
          <button type="submit" className="btn btn-primary w-full" disabled={sending || !(file || deck)}>
            {sending ? "Handing in …" : "Hand in"}
          </button>
        </form>
      )}
    </EntranceFrame>
  );
}
