import { ChevronDown, Download, Upload } from "lucide-react";
import { useRef } from "react";
import { download } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { useFileChooser } from "../ui/useFileChooser";
import type { useSegments } from "./useSegments";

const ACCEPTED = ".xlf,.xliff,.docx,.xlsx,.ods,.tmx,.csv,.tsv,.txt,.tbx";

/** Whether a .csv holds the segments of a deck and not a list of terms. */
const holdsSegments = async (file: File) => /^\uFEFF?"?Place\b.*\bSource\b/i.test(await file.slice(0, 200).text());

type Acts = Pick<ReturnType<typeof useSegments>, "list" | "takeTmx" | "takeTerms" | "takeTranslations">;

/** Takes a file by its kind, and returns what came of it, a sentence each. */
async function taken(file: File, { takeTmx, takeTerms, takeTranslations }: Acts): Promise<string[]> {
  const name = file.name.toLowerCase();
  if (name.endsWith(".tmx")) return [`${file.name}: ${await takeTmx(file)} translations are in the memory now.`];
  if (/\.(csv|tsv|txt|tbx)$/.test(name) && !(await holdsSegments(file))) {
    const { terms, remarks } = await takeTerms(file);
    return [`${file.name}: ${terms} terms are now your list for these languages.`, ...remarks];
  }
  const { taken: count, remarks } = await takeTranslations(file);
  return [`${file.name}: ${count} translations were taken.`, ...remarks];
}

/** Files for translators, with and without tools: out, and in again. */
export function Files({ acts, onSaid }: { acts: Acts; onSaid: (lines: string[]) => void }) {
  const { deck, canEdit } = useDeck();
  const chooser = useFileChooser({
    label: "What a translator sent back, a memory (TMX) or a list of terms (.csv, TBX)",
    accept: ACCEPTED,
    onFiles: ([given]) => void bring(given),
  });
  const menu = useRef<HTMLDetailsElement>(null);
  const { list } = acts;
  const pair = `from=${list?.from}&to=${list?.to}`;
  const segments = `/decks/${deck.id}/segments/file`;
  const files = [
    ["XLIFF 2.1, for translators' tools", `${segments}?as=xlf&version=2.1`],
    ["XLIFF 1.2, for older tools", `${segments}?as=xlf&version=1.2`],
    ["Document with two columns (.docx)", `${segments}?as=docx`],
    ["Spreadsheet (.xlsx)", `${segments}?as=xlsx`],
    ["Comma-separated values (.csv)", `${segments}?as=csv`],
    ["Your memory in these languages (TMX)", `/memory?${pair}`],
    ["Your terms in these languages (TBX)", `/terms?${pair}&form=tbx`],
  ] as const;

  async function bring(file: File | undefined) {
    if (!file) return;
    try {
      onSaid(await taken(file, acts));
    } catch (reason) {
      onSaid([`${file.name}: ${(reason as Error).message}`]);
    }
  }
  return (
    <>
      <details
        ref={menu}
        className="dropdown dropdown-end"
        onBlur={({ currentTarget, relatedTarget }) => {
          if (!currentTarget.contains(relatedTarget)) currentTarget.open = false;
        }}
        onKeyDown={({ key, currentTarget }) => {
          if (key === "Escape") currentTarget.open = false;
        }}
      >
        <summary className="btn btn-ghost btn-sm" title="Files for translators, your memory and your terms">
          <Download size={16} aria-hidden="true" /> Files <ChevronDown size={14} aria-hidden="true" />
        </summary>
        <ul className="menu dropdown-content bg-base-100 hairline z-20 w-80 border p-1">
          {files.map(([label, address]) => (
            <li key={label}>
              <button
                type="button"
                disabled={!list}
                onClick={() => {
                  if (menu.current) menu.current.open = false;
                  void download(address);
                }}
              >
                {label}
              </button>
            </li>
          ))}
        </ul>
      </details>
      <button
        type="button"
        className="btn btn-ghost btn-sm"
        disabled={!canEdit}
        title="What a translator sent back (XLIFF, .docx, .xlsx, .csv), a memory (TMX) or a list of terms (TBX, or .csv: term, translation, note, forbidden words)"
        onClick={chooser.choose}
      >
        <Upload size={16} aria-hidden="true" /> Bring in
      </button>
      {chooser.input}
    </>
  );
}
