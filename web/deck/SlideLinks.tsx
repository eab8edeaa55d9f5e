import { linkPlaces, type Scene } from "@unitext/core/layout";
import { deckLink, slideLink } from "@unitext/core/model";

/** The links of a slide as areas to click: a slide of the deck opens in place, an address in a new window. */
export function SlideLinks({ scene, onOpen }: { scene: Scene; onOpen: (slide: string) => void }) {
  const { width, height } = scene.page;
  return linkPlaces(scene)
    .filter(({ to }) => !deckLink(to))
    .map(({ to, words, ...at }, nth) => {
      const style = {
        left: `${(at.x / width) * 100}%`,
        top: `${(at.y / height) * 100}%`,
        width: `max(24px, ${(at.width / width) * 100}%)`,
        height: `max(24px, ${(at.height / height) * 100}%)`,
      };
      const inside = slideLink(to);
      const name = words.trim() || to;
      if (inside !== undefined)
        return (
          <button
            key={nth}
            type="button"
            aria-label={name}
            title={`To the slide that “${name}” leads to`}
            className="absolute cursor-pointer hover:outline-2 hover:outline-secondary"
            style={style}
            onClick={() => onOpen(inside)}
          />
        );
      return (
        <a
          key={nth}
          href={to}
          target="_blank"
          rel="noreferrer"
          title={to}
          className="absolute hover:outline-2 hover:outline-secondary"
          style={style}
        >
          <span className="sr-only">{name}</span>
        </a>
      );
    });
}
