import { type DeckRow, DeckState } from "@unitext/server/api";
import { isDocumentName } from "@unitext/core/formats/catalogue";
import { metadataOf } from "@unitext/core/model";
import { Copy, Trash2 } from "lucide-react";
import { useMemo, useState } from "react";
import { Link, useNavigate } from "react-router";
import useSWR from "swr";
import { z } from "zod";
import { get, post } from "../api/client";
import { handOverDocument } from "../deck/pending";
import { useScene } from "../deck/scenes";
import { SlideView } from "../deck/SlideView";
import { clock } from "../ui/time";

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

/** A deck on the Desk: its first slide, name and numbers, and what can be done with it. A document dropped on it is compared with its own. */
export function DeskRow({
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
        if (!file || !isDocumentName(file.name)) return;
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
