import { type BrokenLink, brokenLinks, mendLink } from "@unitext/core/divide";
import type { Change } from "@unitext/core/edit";
import { nameOf } from "@unitext/core/model";
import { DeckState } from "@unitext/server/api";
import { useEffect, useMemo, useRef } from "react";
import useSWR from "swr";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** Lists broken links, each with its former target and other possible targets. */
export function LinksDialog({ onClose }: { onClose: () => void }) {
  const { deck, session, canEdit } = useDeck();
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => dialog.current?.showModal(), []);
  const origins = useMemo(
    () =>
      [...new Set(deck.slides.flatMap(({ origin }) => (origin && origin.deck !== deck.id ? [origin.deck] : [])))].slice(
        0,
        60,
      ),
    [deck],
  );
  const { data } = useSWR(
    `/origins/${origins.join()}`,
    async () =>
      (
        await Promise.all(
          origins.map((id) =>
            get(`/decks/${id}`, DeckState).then(
              ({ deck: found }) => [found],
              () => [],
            ),
          ),
        )
      ).flat(),
    { revalidateOnFocus: false },
  );
  const broken = useMemo(() => brokenLinks(deck, data ?? []), [deck, data]);
  const mend = (link: BrokenLink, to: string | null, words: string) => {
    const change = mendLink(deck, link.slide, link.to, to);
    if (change) session.apply(change, { words });
  };
  const all = () => {
    const changes = broken.flatMap((link) => {
      const to = link.nearest ?? link.contents;
      const change = to ? mendLink(deck, link.slide, link.to, to.slide) : undefined;
      return change ? [change] : [];
    });
    const list = changes.flatMap((change: Change) => (change.kind === "batch" ? change.changes : [change]));
    if (list.length) session.apply({ kind: "batch", changes: list }, { words: `Mended ${changes.length} links` });
  };
  return (
    <dialog ref={dialog} className="modal" aria-labelledby="links-title" onClose={onClose}>
      <div className="modal-box hairline max-w-3xl border">
        <h2 id="links-title" className="mb-1 text-lg font-semibold">
          {broken.length === 0
            ? "No broken links"
            : broken.length === 1
              ? "One broken link"
              : `${broken.length} broken links`}
        </h2>
        {broken.length > 0 && (
          <p className="quiet mb-3 text-sm">
            The slides that they led to are not in this deck. Each can lead elsewhere, or be taken off; its words stay.
          </p>
        )}
        <ul className="max-h-96 overflow-auto text-sm">
          {broken.map((link) => (
            <li
              key={`${link.slide}/${link.to}/${link.words}`}
              className="hairline flex flex-wrap items-center gap-2 border-t py-2"
            >
              <p className="min-w-0 flex-1">
                Slide {link.number}: “{link.words}”
                <span className="quiet block">
                  {link.target
                    ? `led to slide ${link.target.number} of its origin, ${link.target.name}`
                    : "what it led to is not known any more"}
                </span>
              </p>
              {link.nearest && (
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={!canEdit}
                  onClick={() =>
                    mend(
                      link,
                      link.nearest?.slide ?? null,
                      `The link “${link.words}” leads to slide ${link.nearest?.number} now`,
                    )
                  }
                >
                  To slide {link.nearest.number}, {link.nearest.name.slice(0, 30)}
                </button>
              )}
              {link.contents && (
                <button
                  type="button"
                  className="btn btn-xs"
                  disabled={!canEdit}
                  onClick={() =>
                    mend(link, link.contents?.slide ?? null, `The link “${link.words}” leads to the contents now`)
                  }
                >
                  To the contents
                </button>
              )}
              <select
                className="select select-xs w-36"
                aria-label={`Lead “${link.words}” to another slide`}
                disabled={!canEdit}
                value=""
                onChange={(event) =>
                  mend(link, event.target.value, `The link “${link.words}” leads to another slide now`)
                }
              >
                <option value="">another slide …</option>
                {deck.slides.map((slide, nth) => (
                  <option key={slide.id} value={slide.id}>
                    {nth + 1}. {nameOf(slide)}
                  </option>
                ))}
              </select>
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                disabled={!canEdit}
                onClick={() => mend(link, null, `Took the link off “${link.words}”`)}
              >
                Take it off
              </button>
            </li>
          ))}
        </ul>
        <div className="modal-action">
          {broken.some(({ nearest, contents }) => nearest || contents) && (
            <button type="button" className="btn btn-ghost" disabled={!canEdit} onClick={all}>
              Mend all as offered first
            </button>
          )}
          <button type="button" className="btn btn-primary" onClick={() => dialog.current?.close()}>
            Done
          </button>
        </div>
      </div>
    </dialog>
  );
}
