import { LOGO_CORNERS, type Logo, type ThemeChoice } from "@unitext/core/model";
import { Picture } from "@unitext/server/api";
import { Image, X } from "lucide-react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { Measure } from "../ui/Measure";
import { useFileChooser } from "../ui/useFileChooser";

const CORNERS: Record<Logo["at"], string> = {
  "top-left": "top left",
  "top-right": "top right",
  "bottom-left": "bottom left",
  "bottom-right": "bottom right",
};
/** The height of a new logo in points. */
const HEIGHT = 34;

/** The logo of the theme that is tried: its picture, its corner and its height. */
export function LogoChoice({ choice, onChoice }: { choice: ThemeChoice; onChoice: (choice: ThemeChoice) => void }) {
  const { deck, session } = useDeck();
  const picture = useFileChooser({
    label: "Picture of the logo",
    accept: "image/*",
    onFiles: ([given]) => void (given && bring(given)),
  });
  const { logo, ...without } = choice;
  async function bring(given: File) {
    try {
      const address = `/decks/${deck.id}/pictures?name=${encodeURIComponent(`theme/${given.name.replace(/\s+/g, "-")}`)}`;
      const { sha256, mediaType, width, height } = await post(address, given, Picture);
      // Named by its content, so that the name is the same in every deck that takes the theme.
      const ending = /\.[a-z]+$/i.exec(given.name)?.[0] ?? "";
      onChoice({
        ...choice,
        logo: {
          source: `theme/logo-${sha256.slice(0, 16)}${ending}`,
          asset: { sha256, mediaType, width, height },
          at: logo?.at ?? "top-right",
          height: logo?.height ?? HEIGHT,
          alt: given.name.replace(/\.[^.]*$/, ""),
        },
      });
    } catch (error) {
      session.notify(`${given.name}: ${(error as Error).message}`);
    }
  }
  return (
    <fieldset>
      <legend className="font-semibold">Logo</legend>
      <div className="flex flex-wrap items-center gap-2">
        <button
          type="button"
          className="btn btn-xs"
          title="Puts a picture into a corner of every slide"
          onClick={picture.choose}
        >
          <Image size={14} aria-hidden="true" /> {logo ? "Another picture …" : "Picture …"}
        </button>
        {picture.input}
        {logo && (
          <button
            type="button"
            title="Takes the logo off all slides"
            className="btn btn-ghost btn-xs"
            onClick={() => onChoice(without)}
          >
            <X size={14} aria-hidden="true" /> No logo
          </button>
        )}
      </div>
      {logo && (
        <div className="mt-1 flex items-end gap-2">
          <label className="flex-1">
            Corner
            <select
              className="select select-sm w-full"
              value={logo.at}
              onChange={({ target }) => onChoice({ ...choice, logo: { ...logo, at: target.value as Logo["at"] } })}
            >
              {LOGO_CORNERS.map((at) => (
                <option key={at} value={at}>
                  {CORNERS[at]}
                </option>
              ))}
            </select>
          </label>
          <Measure
            label="Height"
            least={8}
            most={200}
            value={logo.height}
            onSet={(height) => onChoice({ ...choice, logo: { ...logo, height } })}
          />
        </div>
      )}
    </fieldset>
  );
}
