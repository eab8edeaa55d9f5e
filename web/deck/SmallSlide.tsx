import type { DeckMetadata, Slide } from "@unitext/core/model";
import { useScene } from "./scenes";
import { SlideView } from "./SlideView";

/** A small slide with a hairline around it. Without a label it is beside text that names it. */
export function SmallSlide({
  slide,
  number,
  metadata,
  deck,
  width,
  label,
  className = "",
}: {
  slide: Slide;
  number: number;
  metadata: DeckMetadata;
  deck: string;
  width: number;
  label?: string;
  className?: string;
}) {
  const scene = useScene(slide, number, metadata);
  return (
    <div
      className={`hairline shrink-0 border ${slide.hidden ? "opacity-45" : ""} ${className}`}
      style={{ width, maxWidth: "100%" }}
    >
      {scene ? (
        <SlideView scene={scene} deck={deck} {...(label ? { label } : {})} />
      ) : (
        <div className="bg-base-200" style={{ aspectRatio: `${metadata.page.width} / ${metadata.page.height}` }} />
      )}
    </div>
  );
}
