import { Minus, Plus } from "lucide-react";
import { useState } from "react";

const STORE = "unitext:notes-size";
/** The size of the notes, in CSS pixels: the smallest, the usual and the largest, and a step. */
const [LEAST, USUAL, MOST, STEP] = [14, 20, 44, 2];

/** The size at which notes are shown while speaking; kept in this browser. */
export function useNotesSize(): [number, (size: number) => void] {
  const [size, setSize] = useState(() => Number(localStorage.getItem(STORE)) || USUAL);
  const set = (next: number) => {
    const kept = Math.min(MOST, Math.max(LEAST, next));
    localStorage.setItem(STORE, String(kept));
    setSize(kept);
  };
  return [size, set];
}

/** Makes the notes larger or smaller. */
export function NotesSize({ size, onSize }: { size: number; onSize: (size: number) => void }) {
  return (
    <div className="flex items-center gap-1 pt-1 text-sm">
      <h2 className="font-semibold">Notes</h2>
      <button
        type="button"
        className="btn btn-ghost btn-xs btn-square ml-auto"
        aria-label="Smaller notes"
        title="Smaller notes"
        disabled={size <= LEAST}
        onClick={() => onSize(size - STEP)}
      >
        <Minus size={14} aria-hidden="true" />
      </button>
      <button
        type="button"
        className="btn btn-ghost btn-xs btn-square"
        aria-label="Larger notes"
        title="Larger notes"
        disabled={size >= MOST}
        onClick={() => onSize(size + STEP)}
      >
        <Plus size={14} aria-hidden="true" />
      </button>
    </div>
  );
}
