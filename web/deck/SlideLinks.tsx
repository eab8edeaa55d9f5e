import { linkNames, type Scene } from "@unitext/core/layout";
import { deckLink, slideLink } from "@unitext/core/model";

interface Place {
  to: string;
  words: string;
  x: number;
  y: number;
  width: number;
  height: number;
}

/** Where links stand on a scene: runs of words that follow each other on a line are one. */
function placesOf(scene: Scene): Place[] {
  const names = linkNames(scene);
  const whole = scene.boxes.flatMap((box): Place[] => (box.link ? [{ to: box.link, words: names.get(box.element ?? "") ?? "", x: box.x, y: box.y, width: box.width, height: box.height }] : []));
  const words = scene.nodes.flatMap((node) => (node.kind === "text" ? node.lines : [])).flatMap(({ y, runs }) => {
    const places: Place[] = [];
    for (const run of runs) {
      const last = places.at(-1);
      if (!run.link) continue;
      if (last && last.to === run.link && Math.abs(last.x + last.width - run.x) < 2) {
        last.width = run.x + run.width - last.x;
        last.words += run.text;
      } else places.push({ to: run.link, words: run.text, x: run.x, y: y - run.size, width: run.width, height: run.size * 1.3 });
    }
    return places;
  });
  return [...whole, ...words].filter(({ to }) => !deckLink(to));
}

/** Links on a slide to be pressed: a slide of the deck opens where one stands, an address in a window of its own. */
export function SlideLinks({ scene, onOpen }: { scene: Scene; onOpen: (slide: string) => void }) {
  const { width, height } = scene.page;
  return placesOf(scene).map(({ to, words, ...at }, nth) => {
    const style = { left: `${(at.x / width) * 100}%`, top: `${(at.y / height) * 100}%`, width: `max(24px, ${(at.width / width) * 100}%)`, height: `max(24px, ${(at.height / height) * 100}%)` };
    const inside = slideLink(to);
    const name = words.trim() || to;
    if (inside !== undefined) return <button key={nth} type="button" aria-label={name} title={`To the slide that “${name}” leads to`} className="absolute cursor-pointer hover:outline-2 hover:outline-secondary" style={style} onClick={() => onOpen(inside)} />;
    return <a key={nth} href={to} target="_blank" rel="noreferrer" title={to} className="absolute hover:outline-2 hover:outline-secondary" style={style}><span className="sr-only">{name}</span></a>;
  });
}
