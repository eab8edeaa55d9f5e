import { Begun } from "@unitext/server/api";
import { useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { mutate } from "swr";
import { post } from "../api/client";
import { isOpen, JobLine, useJobs } from "../jobs";
import { Rail } from "../shell/Rail";
import { MergeList } from "./MergeList";

/** Merges decks of the Desk, found by their names, into a new one; the decks are not altered. */
export default function Gather() {
  const [search, setSearch] = useSearchParams();
  // Decks that were selected on the Desk are in the list from the start.
  const [first] = useState(() => (search.get("decks") ?? "").split(",").filter(Boolean));
  const [title, setTitle] = useState("");
  const [job, setJob] = useState<string>();
  const [refused, setRefused] = useState("");
  const running = useJobs().find(({ id }) => id === job);
  useEffect(() => {
    document.title = "Gather decks · Unitext";
  }, []);
  return (
    <div className="flex h-full max-md:flex-col-reverse">
      <Rail />
      <main className="flex min-h-0 min-w-0 flex-1 flex-col">
        <header className="hairline flex flex-wrap items-center gap-3 border-b px-4 py-3">
          <h1 className="mr-auto font-serif text-2xl">Gather decks</h1>
          <p className="quiet text-sm">Several decks become one new deck; none of them is touched.</p>
        </header>
        {(running || refused) && (
          <div className="hairline max-h-56 overflow-auto border-b px-4 pt-2">
            {running && <JobLine job={running} />}
            {refused && (
              <p role="alert" className="border-error mb-2 border-l-4 px-3">
                {refused}
              </p>
            )}
          </div>
        )}
        <div className="min-h-0 flex-1">
          <MergeList
            first={first}
            pattern={search.get("names") ?? ""}
            onPattern={(names) => setSearch(names ? { names } : {}, { replace: true })}
          >
            {(choice, slides, problem) => (
              <form
                className="flex flex-wrap items-center gap-3"
                onSubmit={async (event) => {
                  event.preventDefault();
                  if (!choice) return;
                  setRefused("");
                  try {
                    const { drop, ...options } = choice.options;
                    const { job: begun } = await post(
                      "/merges",
                      {
                        ...options,
                        sections: options.sections ?? false,
                        contents: options.contents ?? false,
                        openingsOnce: options.openingsOnce ?? false,
                        drop: [...(drop ?? [])],
                        title,
                        decks: choice.gathered.map(({ deck, version, slides: chosen }) => ({
                          id: deck.id,
                          version,
                          ...(chosen ? { slides: chosen } : {}),
                        })),
                      },
                      Begun,
                    );
                    setJob(begun);
                    await mutate("/jobs");
                  } catch (error) {
                    setRefused((error as Error).message);
                  }
                }}
              >
                <label className="flex items-center gap-2">
                  Name
                  <input
                    className="input input-sm w-64"
                    placeholder="of the new deck"
                    value={title}
                    onChange={(event) => setTitle(event.target.value)}
                  />
                </label>
                <button
                  type="submit"
                  className="btn btn-primary btn-sm"
                  disabled={!choice || (running !== undefined && isOpen(running))}
                >
                  Merge {choice?.gathered.length ?? 0} {choice?.gathered.length === 1 ? "deck" : "decks"}, {slides}{" "}
                  {slides === 1 ? "slide" : "slides"}
                </button>
                {problem && (
                  <p role="alert" className="text-error">
                    {problem}
                  </p>
                )}
              </form>
            )}
          </MergeList>
        </div>
      </main>
    </div>
  );
}
