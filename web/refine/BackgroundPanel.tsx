import { batch, type SingleChange } from "@unitext/core/edit";
import { ARRANGEMENTS, type Background, metadataOf, type Slide, slidePropertiesOf } from "@unitext/core/model";
import { Picture } from "@unitext/server/api";
import { Image, RotateCcw } from "lucide-react";
import { useState } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { Choices } from "../ui/Choices";
import { Colour } from "../ui/ColourField";
import { core } from "../worker";
import { Measure } from "../ui/Measure";
import { useFileChooser } from "../ui/useFileChooser";
import { BackgroundFills } from "./BackgroundFills";
import { pagePixels } from "./pagepixels";

/** Returns the change that gives a slide a background; undefined takes its own away. */
function withBackground(slide: Slide, background: Background | undefined): SingleChange {
  const { background: _, ...properties } = slidePropertiesOf(slide);
  return {
    kind: "setSlideProperties",
    slide: slide.id,
    properties: background ? { ...properties, background } : properties,
  };
}

/** The background of a slide: that of the theme, a colour, a fill, or a picture on which its text can be read. */
export function BackgroundPanel({ slide }: { slide: Slide }) {
  const { deck, session, canEdit } = useDeck();
  const [busy, setBusy] = useState(false);
  const chooser = useFileChooser({
    label: "Picture for the background",
    accept: "image/*",
    onFiles: ([given]) => void (given && bring(given)),
  });
  const { background } = slide;
  const picture = background && "picture" in background ? background : undefined;
  const set = (next: Background | undefined, words: string, slides: readonly Slide[] = [slide]) =>
    session.apply(batch(slides.map((one) => withBackground(one, next))), { words });
  const kind = deck.slides.filter(({ arrangement }) => arrangement === slide.arrangement);

  /** Returns a background picture with the lightest veil under which the text of the slide can be read. */
  async function legible(source: string, sha256: string): Promise<{ background: Background; words: string }> {
    const pixels = await pagePixels(`/api/decks/${deck.id}/pictures/${sha256}`, deck.page);
    const shown = { ...slide, background: { picture: source, veil: 0 } };
    const veil = await core.veil(metadataOf(deck), shown, pixels);
    if (veil === undefined)
      return { background: { picture: source }, words: "plates under the text, since no veil would be enough" };
    return {
      background: { picture: source, veil },
      words: veil ? `a veil of ${Math.round(veil * 100)} %` : "nothing over it, since the text can be read",
    };
  }

  async function bring(given: File) {
    setBusy(true);
    try {
      const name = `pictures/${given.name.replace(/\s+/g, "-")}`;
      const found = await post(`/decks/${deck.id}/pictures?name=${encodeURIComponent(name)}`, given, Picture);
      const { sha256, mediaType, width, height } = found;
      session.apply(
        { kind: "setAsset", name: found.name, asset: { sha256, mediaType, width, height } },
        { quiet: true },
      );
      const made = await legible(found.name, sha256);
      set(made.background, `Put ${given.name} behind the slide, with ${made.words}`);
    } catch (error) {
      session.notify(`${given.name}: ${(error as Error).message}`);
    } finally {
      setBusy(false);
    }
  }

  async function measure() {
    const asset = picture && deck.assets[picture.picture];
    if (!asset) return;
    try {
      const made = await legible(picture.picture, asset.sha256);
      set(made.background, `Measured the picture: ${made.words}`);
    } catch (error) {
      session.notify((error as Error).message);
    }
  }

  const over = picture?.veil === undefined ? "plates" : picture.veil > 0 ? "veil" : "nothing";
  const choose = (next: string) => {
    if (!picture) return;
    const { veil: _, ...bare } = picture;
    if (next === "plates") set(bare, "Put plates under the text");
    else
      set(
        { ...bare, veil: next === "veil" ? 0.5 : 0 },
        next === "veil" ? "Put a veil over the picture" : "Left the picture as it is",
      );
  };
  return (
    <fieldset disabled={!canEdit || busy} className="mb-5">
      <legend className="sr-only">Background</legend>
      <Colour
        label="Colour"
        value={background && "colour" in background ? background.colour : undefined}
        onSet={(colour) => set({ colour }, "Coloured the background")}
      />
      <BackgroundFills slide={slide} onChoose={set} />
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-xs"
          title="Puts a picture behind the slide, so that its text can be read"
          onClick={chooser.choose}
        >
          <Image size={14} aria-hidden="true" /> {picture ? "Another picture …" : "Picture …"}
        </button>
        {chooser.input}
        {background && (
          <button
            type="button"
            className="btn btn-xs"
            title="Takes the slide's own background away"
            onClick={() => set(undefined, "Put the slide back on the background of the theme")}
          >
            <RotateCcw size={14} aria-hidden="true" /> Back to the theme
          </button>
        )}
      </div>
      {picture && (
        <div className="mt-3">
          <Choices
            legend="Under the text"
            showLegend
            options={[
              { value: "veil", label: "veil" },
              { value: "plates", label: "plates" },
              { value: "nothing", label: "nothing" },
            ]}
            value={over}
            onChange={choose}
          />
          {over === "veil" && (
            <Measure
              label="Veil"
              unit="%"
              least={5}
              most={95}
              step={5}
              value={(picture.veil ?? 0) * 100}
              onSet={(percent) => set({ ...picture, veil: percent / 100 }, `A veil of ${Math.round(percent)} %`)}
            />
          )}
          <button
            type="button"
            className="btn btn-xs mt-1"
            title="Measures the contrast of the text on the picture, and takes the lightest veil or plates"
            onClick={() => void measure()}
          >
            Measure the contrast
          </button>
        </div>
      )}
      {background && deck.slides.length > 1 && (
        <div className="mt-2 flex flex-wrap gap-2">
          {kind.length > 1 && (
            <button
              type="button"
              className="btn btn-xs"
              title={`Gives it to all slides with the arrangement “${ARRANGEMENTS[slide.arrangement].label}”`}
              onClick={() => set(background, `Gave the background to ${kind.length} slides`, kind)}
            >
              All of its kind ({kind.length})
            </button>
          )}
          <button
            type="button"
            className="btn btn-xs"
            onClick={() => set(background, `Gave the background to ${deck.slides.length} slides`, deck.slides)}
          >
            All slides
          </button>
        </div>
      )}
    </fieldset>
  );
}
