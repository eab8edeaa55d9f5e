import { Choices } from "../ui/Choices";
import type { Choice } from "@unitext/core/diff";
import type { Following, TailorItem, TailorReview } from "@unitext/core/divide";
import { metadataOf, nameOf, type Slide, must } from "@unitext/core/model";
import { OriginalStates } from "@unitext/server/api";
import { useEffect, useMemo, useState } from "react";
import { Link } from "react-router";
import useSWR from "swr";
import { SmallSlide } from "../deck/SmallSlide";
import { get } from "../api/client";
import { useDeck } from "../deck/DeckContext";
import { core } from "../worker";

const STATES: Record<Exclude<TailorItem["state"], "same">, { label: string; tone: string; act: string }> = {
  new: { label: "New in the original", tone: "border-success", act: "Accept the new slide" },
  changed: { label: "Changed in the original", tone: "border-primary", act: "Accept the change" },
  moved: { label: "Moved in the original", tone: "border-primary", act: "Move it here too" },
  gone: { label: "Gone from the original", tone: "border-warning", act: "Remove" },
  conflict: { label: "Changed in both", tone: "border-error", act: "Accept the rest" },
};
export const FOLLOWING: Record<Following, string> = {
  followed: "followed",
  changed: "changed here",
  left: "left out",
  own: "only here",
};

/**
 * Shows what the original of this deck brings since it was last taken, slide by slide; nothing is taken before the user
 * says so.
 */
export function TailorView() {
  const { deck, version, session, canEdit } = useDeck();
  const { data, error } = useSWR(
    `/decks/${deck.id}/original?${deck.original?.version}`,
    () => get(`/decks/${deck.id}/original`, OriginalStates),
    { revalidateOnFocus: true },
  );
  const [choices, setChoices] = useState<ReadonlyMap<string, Choice>>(new Map());
  const [review, setReview] = useState<TailorReview>();
  const [busy, setBusy] = useState(false);
  useEffect(() => {
    let gone = false;
    if (data)
      void core.reviewTailored(deck, data.base, data.now, new Map(choices)).then((found) => !gone && setReview(found));
    return () => {
      gone = true;
    };
  }, [deck, data, choices]);
  const heads = useMemo(() => ({ mine: metadataOf(deck), theirs: data && metadataOf(data.now) }), [deck, data]);
  if (error)
    return (
      <p role="alert" className="p-4">
        {(error as Error).message}
      </p>
    );
  if (!data || !review || !heads.theirs) return <p className="quiet p-4">Looking at the original …</p>;
  const waiting = review.items.filter(
    (item): item is TailorItem & { state: keyof typeof STATES } => item.state !== "same",
  );
  const taken = waiting.filter(({ key }) => choices.get(key)?.take !== false).length;
  const choose = (key: string, change: Choice) =>
    setChoices(
      new Map(choices).set(key, {
        ...choices.get(key),
        ...change,
        conflicts: { ...choices.get(key)?.conflicts, ...change.conflicts },
      }),
    );
  const numbers = new Map(deck.slides.map(({ id }, nth) => [id, nth + 1]));
  const theirNumbers = new Map(data.now.slides.map(({ id }, nth) => [id, nth + 1]));
  const take = async () => {
    setBusy(true);
    try {
      const change = await core.takeTailored(
        deck,
        data.base,
        { deck: data.now, version: data.version },
        new Map(choices),
      );
      if (change)
        session.apply(change, {
          words: `Took ${taken} ${taken === 1 ? "slide" : "slides"} from “${data.now.properties.title}”`,
        });
      setChoices(new Map());
    } finally {
      setBusy(false);
    }
  };
  const side = (slide: Slide | null, theirs: boolean) => (
    <figure>
      <figcaption className="quiet text-xs">{theirs ? "In the original" : "Here"}</figcaption>
      {slide ? (
        <SmallSlide
          slide={slide}
          number={(theirs ? theirNumbers : numbers).get(slide.id) ?? 1}
          metadata={theirs ? must(heads.theirs) : heads.mine}
          deck={theirs ? data.now.id : deck.id}
          width={208}
          label={theirs ? "In the original" : "Here"}
        />
      ) : (
        <div className="hairline quiet grid h-[117px] w-[208px] shrink-0 place-items-center border border-dashed text-sm">
          not here
        </div>
      )}
    </figure>
  );
  return (
    <section aria-label="What the original brings" className="flex h-full min-h-0 flex-col" data-tailor>
      <header className="hairline flex flex-wrap items-center gap-3 border-b px-4 py-2 text-sm">
        <p className="min-w-0 flex-1">
          This deck follows{" "}
          <Link className="text-primary underline" to={`/decks/${data.now.id}/arrange`}>
            {data.now.properties.title}
          </Link>
          : {review.following.followed} slides as there, {review.following.changed} changed here,{" "}
          {review.following.left} left out, {review.following.own} only here.{" "}
          <strong>
            {waiting.length === 0
              ? "Nothing new in the original."
              : `${waiting.length} ${waiting.length === 1 ? "slide has" : "slides have"} something new.`}
          </strong>
        </p>
        {waiting.length > 0 && (
          <button
            type="button"
            className="btn btn-primary btn-sm"
            disabled={busy || !canEdit || taken === 0}
            onClick={() => void take()}
          >
            {busy ? "Accepting …" : `Accept ${taken} ${taken === 1 ? "slide" : "slides"}`}
          </button>
        )}
      </header>
      <div
        className="min-h-0 flex-1 overflow-auto px-4"
        tabIndex={0}
        role="region"
        aria-label="Slides with something new"
      >
        {waiting.map((item) => {
          const { label, tone, act } = STATES[item.state];
          const choice = choices.get(item.key);
          const slide = (item.mine ?? item.theirs) as Slide;
          return (
            <article key={item.key} data-state={item.state} className="hairline border-b py-3">
              <div className={`border-l-4 pl-3 ${tone}`}>
                <header className="mb-1 flex items-center gap-x-3 max-lg:flex-wrap">
                  <h3 className="min-w-0 flex-1 truncate">
                    <strong>{label}</strong>: {item.mine ? `slide ${numbers.get(item.mine.id)}, ` : ""}
                    {nameOf(slide) || "(empty)"}{" "}
                    {item.following === "changed" && item.state === "changed" ? "(what was changed here is kept)" : ""}
                  </h3>
                  <label className="flex items-center gap-2 text-sm whitespace-nowrap">
                    <input
                      type="checkbox"
                      className="checkbox checkbox-sm"
                      checked={choice?.take !== false}
                      onChange={(event) => choose(item.key, { take: event.target.checked })}
                    />
                    {act}
                  </label>
                </header>
                <div className="flex gap-4 max-lg:flex-wrap">
                  {side(item.mine, false)}
                  {side(item.theirs, true)}
                  <div className="min-w-0 flex-1 space-y-2 text-sm">
                    {item.conflicts.map(({ aspect, label: name, hand, text }) => (
                      <Choices
                        key={aspect}
                        legend={name}
                        showLegend
                        layout="columns"
                        value={choice?.conflicts?.[aspect] ?? "hand"}
                        onChange={(value) => choose(item.key, { conflicts: { [aspect]: value } })}
                        options={(["hand", "text"] as const).map((value) => ({
                          value,
                          label: value === "hand" ? "As here" : "As in the original",
                          content: (
                            <span className="font-serif whitespace-pre-wrap">
                              {(value === "hand" ? hand : text) || "–"}
                            </span>
                          ),
                        }))}
                      />
                    ))}
                  </div>
                </div>
              </div>
            </article>
          );
        })}
        {waiting.length === 0 && (
          <p className="quiet py-8 text-center">
            When the original changes, what is new is shown here, to be taken slide by slide. Version {version} of this
            deck is up to date.
          </p>
        )}
      </div>
    </section>
  );
}
