import { ArrowLeft } from "lucide-react";
import { Link } from "react-router";
import { useDeck } from "../deck/DeckContext";
import { isOpen, JobLine, useJobs } from "../jobs";
import { DeckFrame } from "../shell/DeckFrame";
import { FilmForm } from "./FilmForm";
import { MadeFilms } from "./MadeFilms";
import { SpokenSlides } from "./SpokenSlides";

/** A film of the deck: what speaks each slide, the choices, and the films that were made. */
export default function FilmPage() {
  const { deck } = useDeck();
  const jobs = useJobs().filter((job) => job.kind === "film" && job.deck === deck.id);
  const running = jobs.filter(isOpen);
  const [last] = jobs;
  return (
    <DeckFrame place="Film">
      <div className="flex h-full gap-6 p-4 max-lg:flex-col max-lg:overflow-auto lg:overflow-hidden">
        <div className="min-w-0 flex-1 lg:overflow-auto" tabIndex={0} role="region" aria-label="What speaks each slide">
          <p className="mb-2 text-sm">
            <Link className="text-primary inline-flex items-center gap-1 underline" to={`/decks/${deck.id}/deliver`}>
              <ArrowLeft size={14} aria-hidden="true" /> Deliver
            </Link>
          </p>
          <h2 className="text-lg font-semibold">What speaks each slide</h2>
          <p className="quiet mb-1 text-sm">
            The notes are read aloud, or you speak yourself. Points and pictures appear when they are spoken of.
          </p>
          <SpokenSlides />
        </div>
        <div
          className="flex w-full shrink-0 flex-col gap-4 max-lg:order-first lg:w-[25rem] lg:overflow-auto"
          tabIndex={0}
          role="region"
          aria-label="The film"
        >
          <FilmForm busy={running.length > 0} />
          {last && (running.length > 0 || last.state !== "done") && <JobLine job={running[0] ?? last} here />}
          <MadeFilms made={jobs.filter(({ state }) => state === "done").length} />
        </div>
      </div>
    </DeckFrame>
  );
}
