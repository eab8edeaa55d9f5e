import { Trash2 } from "lucide-react";
import { useEffect, useState } from "react";
import { useDeck } from "../deck/DeckContext";
import { speakerIn } from "../deck/presence";
import { FirstUse } from "./FirstUse";
import { SetAsideDialog } from "./SetAsideDialog";

/** The last act with its undo, and the save status. */
export function NoticeLine({ place }: { place: string }) {
  const { notice, status, session, aside, binned, others } = useDeck();
  const speaker = speakerIn(others);
  const [open, setOpen] = useState(false);
  useEffect(() => {
    if (!notice) return;
    const timer = setTimeout(() => session.dismiss(), notice.undo ? 12000 : 8000);
    return () => clearTimeout(timer);
  }, [notice, session]);
  const words = {
    saved: aside.length ? "All else kept" : "All kept",
    saving: "Saving …",
    waiting: "Server not reached: saved on this computer",
    refused: "Not saved",
  }[status];
  return (
    <div className="hairline flex min-h-9 items-center gap-3 border-t px-4 text-sm">
      <p role="status" className={notice ? "flex min-w-0 flex-1 items-center gap-3" : "sr-only"}>
        {notice && <span className="truncate">{notice.text}</span>}
      </p>
      {!notice && !binned && !speaker && <FirstUse place={place} />}
      {speaker && (
        <p role="status" className="text-sm">
          {speaker.name} speaks from this deck; it can be read, and edited again afterwards.
        </p>
      )}
      {binned && (
        <p role="status" className="flex min-w-0 items-center gap-2">
          <Trash2 size={16} className="text-warning shrink-0" aria-hidden="true" />
          <span>This deck was put into the bin. Nothing is lost: it stays there for 30 days, and you can go on.</span>
          <button type="button" className="btn btn-xs" onClick={() => void session.restore()}>
            Take it out
          </button>
        </p>
      )}
      {notice?.undo && (
        <button type="button" className="btn btn-ghost btn-xs text-primary" onClick={() => session.undo()}>
          Undo
        </button>
      )}
      {aside.length > 0 && (
        <button type="button" className="btn btn-xs btn-outline btn-error" onClick={() => setOpen(true)}>
          {aside.length === 1 ? "1 change" : `${aside.length} changes`} could not be saved
        </button>
      )}
      {open && aside.length > 0 && <SetAsideDialog onClose={() => setOpen(false)} />}
      <span
        className={`ml-auto whitespace-nowrap ${status === "waiting" || status === "refused" ? "text-error" : "quiet"}`}
        data-status={status}
      >
        {words}
      </span>
    </div>
  );
}
