import { duplicates } from "@unitext/core/divide";
import { must, type Theme } from "@unitext/core/model";
import { DeckList, DeckState } from "@unitext/server/api";
import { useMemo, useState } from "react";
import useSWR from "swr";
import { get } from "../api/client";
import { lastAppearance } from "../deck/lastappearance";
import { useLookPreview } from "./useLookPreview";
import { type Found, found, gatheredFrom, type Listed, ordered } from "./list";

/** Loads the decks of a list. */
function useStates(ids: readonly string[], versions: ReadonlyMap<string, number>): Map<string, DeckState> {
  const key = ids
    .map((id) => `${id}@${versions.get(id) ?? 0}`)
    .sort()
    .join(",");
  const { data } = useSWR(
    key ? `/gathered/${key}` : null,
    async () => {
      const states = await Promise.all(ids.map((id) => get(`/decks/${id}`, DeckState).catch(() => undefined)));
      return states.flatMap((state) => (state ? [state] : []));
    },
    { keepPreviousData: true, revalidateOnFocus: false },
  );
  return useMemo(() => new Map((data ?? []).map((state) => [state.deck.id, state])), [data]);
}

/** How the decks of a list are merged. */
function useMergeOptions() {
  const [look, setLook] = useState(lastAppearance);
  const [sections, setSections] = useState(false);
  const [contents, setContents] = useState(false);
  const [openingsOnce, setOpeningsOnce] = useState(true);
  const [drop, setDrop] = useState<ReadonlySet<string>>(new Set());
  return { look, setLook, sections, setSections, contents, setContents, openingsOnce, setOpeningsOnce, drop, setDrop };
}

/** The decks that a name pattern finds, those chosen for a merge in their order, and how they are merged. */
export function useMergeList(
  into: { id: string; theme: Theme } | undefined,
  pattern: string,
  first: readonly string[] = [],
) {
  const { data } = useSWR("/decks", () => get("/decks", DeckList));
  const [list, setList] = useState<Listed[]>(() => first.map((id) => ({ id, slides: "" })));
  const [column, setColumn] = useState<number | "name">("name");
  const options = useMergeOptions();
  const rows = (data?.decks ?? []).filter(({ id }) => id !== into?.id);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the rows are computed at every render from these values.
  const byId = useMemo(() => new Map(rows.map((row) => [row.id, row])), [data, into?.id]);
  const fits = useMemo(() => ordered(found(rows, pattern), column), [rows, pattern, column]);
  const stars = fits[0]?.parts.length ?? 0;
  const states = useStates(
    list.map(({ id }) => id),
    // biome-ignore lint/correctness/useExhaustiveDependencies: the rows are computed at every render from these values.
    useMemo(() => new Map(rows.map(({ id, version }) => [id, version])), [data]),
  );
  const listed = new Set(list.map(({ id }) => id));

  const { gathered, problem } = useMemo(() => gatheredFrom(list, states), [list, states]);
  const twins = useMemo(() => (gathered ? duplicates(gathered) : []), [gathered]);
  const count =
    (gathered ?? []).reduce((sum, { deck, slides }) => sum + (slides?.length ?? deck.slides.length), 0) -
    options.drop.size;
  const preview = useLookPreview(gathered, into?.theme);

  const add = (more: readonly Found[]) =>
    setList((now) => [
      ...now,
      ...more.filter(({ row }) => !listed.has(row.id)).map(({ row }) => ({ id: row.id, slides: "" })),
    ]);
  const move = (id: string, to: number) =>
    setList((now) => {
      const from = now.findIndex((item) => item.id === id);
      const target = Math.max(0, Math.min(now.length - 1, to));
      if (from < 0 || from === target) return now;
      const item = must(now[from]);
      return now.toSpliced(from, 1).toSpliced(target, 0, item);
    });
  const order = () => {
    const places = new Map(fits.map(({ row }, nth) => [row.id, nth]));
    setList((now) =>
      [...now].sort(
        (a, b) => (places.get(a.id) ?? now.length + fits.length) - (places.get(b.id) ?? now.length + fits.length),
      ),
    );
  };
  return {
    ...options,
    loaded: data !== undefined,
    list,
    setList,
    column,
    setColumn,
    byId,
    fits,
    stars,
    states,
    listed,
    gathered,
    problem,
    twins,
    count,
    preview,
    add,
    move,
    order,
  };
}

export type MergeListState = ReturnType<typeof useMergeList>;
