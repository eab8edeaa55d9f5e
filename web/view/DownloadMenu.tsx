import { Download } from "lucide-react";
import { download } from "../api/client";
import { MenuButton } from "../ui/Menu";

/** The formats that people take away, in the order in which they are asked for. */
const FORMATS = [
  ["pdf", "PDF"],
  ["pptx", "Presentation (.pptx)"],
  ["odp", "Presentation (.odp)"],
  ["html", "Web page, one file"],
] as const;

/** Downloads a deck as a file, without what is not shared. */
export function DownloadMenu({ deck, onProblem }: { deck: string; onProblem: (problem: string) => void }) {
  return (
    <MenuButton
      className="btn btn-sm"
      acts={FORMATS.map(([format, label]) => ({
        label,
        act: () =>
          void download(`/decks/${deck}/export?format=${format}`).catch((error: Error) => onProblem(error.message)),
      }))}
    >
      <Download size={16} aria-hidden="true" /> Download
    </MenuButton>
  );
}
