import { Dialog } from "../ui/Dialog";
import { type BrokenLink, brokenLinks, mendLink } from "@unitext/core/divide";
import type { Change } from "@unitext/core/edit";
import { nameOf } from "@unitext/core/model";
import { DeckState } from "@unitext/server/api";
import { useMemo } from "react";
import useSWR from "swr";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** Lists broken links, each with its former target and other possible targets. */
export function LinksDialog({ onClose }: { onClose: () => void }) {
  const { deck, session, canEdit } = useDeck();
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
  const heading =
    broken.length === 0 ? "No broken links" : broken.length === 1 ? "One broken link" : `${broken.length} broken links`;
  return (
    <Dialog
      title={heading}
      lead={
        broken.length > 0 &&
        "The slides that they led to are not in this deck. Lead each to another slide, or remove the link; its words stay."
      }
      width="wider"
      onClose={onClose}
      actions={(close) => (
        <>
          {broken.some(({ nearest, contents }) => nearest || contents) && (
            <button type="button" className="btn btn-ghost" disabled={!canEdit} onClick={all}>
              Use the first suggestion for all
            </button>
          )}
          <button type="button" className="btn btn-primary" onClick={close}>
            Done
          </button>
        </>
      )}
    >
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
                  : "its former target is unknown"}
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
              onClick={() => mend(link, null, `Removed the link from “${link.words}”`)}
            >
              Remove the link
            </button>
          </li>
        ))}
      </ul>
    </Dialog>
  );
}
