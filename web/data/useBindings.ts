import { type Bound, withBindingAt } from "@unitext/core/data";
import { batch, type SingleChange } from "@unitext/core/edit";
import type { Binding, BindingMode, Slide } from "@unitext/core/model";
import { type CheckedBinding, DeckBindings } from "@unitext/server/api";
import { useEffect, useRef, useState } from "react";
import useSWR from "swr";
import { get, post } from "../api/client";
import { useDeck } from "../deck/DeckContext";

const setSlides = (slides: readonly Slide[]) =>
  batch(slides.map((slide): SingleChange => ({ kind: "setSlide", slide: slide.id, as: slide })));

const count = (number: number, one: string, more: string) => (number === 1 ? `one ${one}` : `${number} ${more}`);

/** Whether a value is up to date and of no version: it was typed with its link. */
const isUnrecorded = ({ state, binding }: CheckedBinding) => state === "current" && binding.version === undefined;

/** The bindings of the open deck beside their sources, and what can be done with them. */
export function useBindings() {
  const { deck, version, session, canEdit } = useDeck();
  const { data, error, mutate } = useSWR(
    `/decks/${deck.id}/bindings@${version}`,
    () => get(`/decks/${deck.id}/bindings`, DeckBindings),
    { keepPreviousData: true },
  );
  const [busy, setBusy] = useState(false);

  /** Returns the slides as they are with the new values of some bindings. */
  const withValues = async (keys: readonly string[]): Promise<Slide[]> =>
    (await post(`/decks/${deck.id}/bindings/take`, { take: keys }, DeckBindings)).slides;

  const settled = data !== undefined && data.version >= version;
  // Values that were typed with their link say nothing of the version that they are of: it is recorded once they are equal.
  const unrecorded = settled && canEdit ? data.checks.filter(isUnrecorded).map(({ key }) => key) : [];
  const recording = useRef("");
  // biome-ignore lint/correctness/useExhaustiveDependencies: only another list of values begins it.
  useEffect(() => {
    const list = unrecorded.join();
    if (!list || recording.current === list) return;
    recording.current = list;
    withValues(unrecorded).then(
      (slides) => slides.length && session.apply(setSlides(slides), { quiet: true }),
      () => undefined,
    );
  }, [unrecorded.join()]);

  async function take(keys: readonly string[]): Promise<void> {
    setBusy(true);
    try {
      const slides = await withValues(keys);
      if (slides.length)
        session.apply(setSlides(slides), { words: `Took ${count(keys.length, "new value", "new values")}` });
      else session.notify("These values are up to date.");
    } catch (reason) {
      session.notify((reason as Error).message);
    } finally {
      setBusy(false);
    }
  }

  /** Changes bindings in place; undefined unlinks them, and their values stay. */
  function change(
    checks: readonly CheckedBinding[],
    next: (binding: Binding) => Binding | undefined,
    words: string,
  ): void {
    const changed = new Map<string, Slide>();
    // From the last of a slide to the first: unlinking one renumbers those after it.
    for (const { slideId, key } of [...checks].reverse()) {
      const slide = changed.get(slideId) ?? deck.slides.find(({ id }) => id === slideId);
      if (slide) changed.set(slideId, withBindingAt(slide, Number(key.slice(key.lastIndexOf("/") + 1)), next));
    }
    if (changed.size) session.apply(setSlides([...changed.values()]), { words });
  }

  const setMode = (checks: readonly CheckedBinding[], mode: BindingMode) =>
    change(
      checks,
      (binding) => ({ ...binding, mode }),
      `Changed how ${count(checks.length, "value follows", "values follow")}`,
    );
  const unlink = (checks: readonly CheckedBinding[]) =>
    change(checks, () => undefined, `Unlinked ${count(checks.length, "value", "values")}`);

  /** Ties a value to other cells. What is shown is still of the cells before; theirs are compared, and taken when wanted. */
  function rebind(check: CheckedBinding, bound: Bound): void {
    const next = bound.kind === "value" ? bound.run.binding : bound.element.binding;
    if (!next) return;
    const { version: _, values: __, ...bare } = next;
    change(
      [check],
      ({ version: taken, values, previous }) => ({
        ...bare,
        ...(taken === undefined ? {} : { version: taken }),
        ...(values ? { values } : {}),
        ...(previous === undefined ? {} : { previous }),
      }),
      `Tied slide ${check.slide} to ${next.range}`,
    );
  }
  return {
    rebind,
    checks: data?.checks,
    /** Whether the checks are of the deck as it is: while they are made again, nothing is taken by them. */
    settled,
    unread: data?.unread ?? [],
    error: error as Error | undefined,
    busy,
    take,
    withValues,
    setMode,
    unlink,
    reload: mutate,
  };
}
