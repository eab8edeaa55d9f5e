import { slidePropertiesOf, type Slide } from "@unitext/core/model";
import { useDeck } from "../deck/DeckContext";
import { clock } from "../ui/time";
import { GAP, type SectionBand } from "./rows";

/** Returns the change that names the section starting with a slide; an empty name removes the section. */
export function nameSection(slide: Slide, name: string | undefined) {
  const { section: _, ...look } = slidePropertiesOf(slide);
  return { kind: "setSlideProperties" as const, slide: slide.id, properties: name ? { ...look, section: name } : look };
}

/**
 * The band over the first slide of a section: its name, number of slides and time. A name that is not the opener's
 * title can be edited in place.
 */
export function SectionName({
  slide,
  section,
  band: { title, named, slides, seconds },
}: {
  slide: Slide;
  section: number;
  band: SectionBand;
}) {
  const { session, canEdit } = useDeck();
  const colours = section % 2 ? "bg-primary text-primary-content" : "bg-secondary text-secondary-content";
  const take = (value: string) => {
    const name = value.trim();
    if (name !== title)
      session.apply(nameSection(slide, name || undefined), {
        words: name ? `Called the section “${name}”` : `Took the section “${title}” away`,
      });
  };
  return (
    <div
      className={`absolute top-0 -left-2.5 flex h-6 items-center gap-3 overflow-hidden px-2.5 text-sm whitespace-nowrap ${colours}`}
      style={{ right: GAP }}
      data-section={slide.id}
    >
      {named && canEdit ? (
        <input
          key={title}
          aria-label="Name of the section"
          title="Without a name no section starts here"
          className="h-6 min-w-0 flex-1 bg-transparent font-semibold focus:outline-2 focus:-outline-offset-2"
          defaultValue={title}
          maxLength={300}
          onBlur={({ target }) => take(target.value)}
          onPointerDown={(event) => event.stopPropagation()}
          onKeyDown={(event) => {
            event.stopPropagation();
            if (event.key === "Escape") event.currentTarget.value = title;
            if (event.key === "Enter" || event.key === "Escape") event.currentTarget.blur();
          }}
        />
      ) : (
        <strong className="truncate font-semibold">{title || "Section"}</strong>
      )}
      <span className="ml-auto">
        {slides} {slides === 1 ? "slide" : "slides"}, {clock(seconds)}
      </span>
    </div>
  );
}
