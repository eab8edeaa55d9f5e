import { ChevronLeft, ChevronRight, CopyPlus, PanelLeft, SquarePlus, Trash2 } from "lucide-react";
import { useDeck } from "../deck/DeckContext";
import { slideActs } from "../deck/slideacts";
import { Tool, useCommands } from "../keys";

/** The tools of one slide in Refine: to its neighbours, and new, duplicate and delete. */
export function SlideNavigation({
  at,
  onOpen,
  strip,
  onStrip,
}: {
  /** The index of the slide. */
  at: number;
  onOpen: (id: string) => void;
  strip: boolean;
  onStrip: () => void;
}) {
  const { deck, version, session, select, canEdit } = useDeck();
  const current = deck.slides[at];
  const selected = current ? [current.id] : [];
  const { newSlide, ...acts } = slideActs({ deck, version, session, selected, select: choose, show: onOpen });
  function choose(ids: readonly string[]) {
    select(ids);
    const [first] = ids;
    if (first) onOpen(first);
  }
  const go = (by: number) => {
    const next = deck.slides[at + by];
    if (next) choose([next.id]);
  };
  useCommands({
    nextSlide: () => go(1),
    previousSlide: () => go(-1),
    slideStrip: onStrip,
    ...(canEdit && current ? { duplicateSlide: acts.duplicate, deleteSlide: acts.delete } : {}),
  });
  const closed = !canEdit || !current;
  return (
    <div className="flex items-center text-sm" role="toolbar" aria-label="Slide">
      <Tool command="slideStrip" label="Slides" icon={PanelLeft} pressed={strip} onPress={onStrip} />
      <Tool command="previousSlide" label="Back" icon={ChevronLeft} bare disabled={at <= 0} onPress={() => go(-1)} />
      <span className="px-1 whitespace-nowrap tabular-nums">
        {at + 1} of {deck.slides.length}
      </span>
      <Tool
        command="nextSlide"
        label="Next"
        icon={ChevronRight}
        bare
        disabled={at >= deck.slides.length - 1}
        onPress={() => go(1)}
      />
      <span className="bg-base-300 mx-1 h-5 w-px" />
      <Tool command="newSlide" label="New slide" icon={SquarePlus} bare disabled={!canEdit} onPress={newSlide} />
      <Tool
        command="duplicateSlide"
        label="Duplicate slide"
        icon={CopyPlus}
        bare
        disabled={closed}
        onPress={acts.duplicate}
      />
      <Tool command="deleteSlide" label="Delete slide" icon={Trash2} bare disabled={closed} onPress={acts.delete} />
    </div>
  );
}
