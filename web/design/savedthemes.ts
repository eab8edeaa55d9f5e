import { canonical, type Theme } from "@unitext/core/model";
import { SavedThemes, ThemesUpdated } from "@unitext/server/api";
import useSWR from "swr";
import { get, post, put, remove } from "../api/client";

/** The designs that the person has saved, and what can be done with them. */
export function useSavedThemes() {
  const { data, mutate } = useSWR("/themes", () => get("/themes", SavedThemes), { revalidateOnFocus: false });
  const saved = data?.themes ?? [];
  return {
    saved,
    /** Returns the saved state of a theme where it differs from the theme; undefined otherwise. */
    newerThan: (theme: Theme): Theme | undefined => {
      const own = saved.find((one) => one.theme.name === theme.name)?.theme;
      return own && canonical(own) !== canonical(theme) ? own : undefined;
    },
    async save(theme: Theme): Promise<void> {
      await put("/themes", { theme });
      await mutate();
    },
    async forget(name: string): Promise<void> {
      await remove(`/themes/${encodeURIComponent(name)}`);
      await mutate();
    },
    /** Gives the saved state to all decks that have a theme of its name. Returns how many took it. */
    async putOnDecks(name: string): Promise<number> {
      const { decks } = await post(`/themes/${encodeURIComponent(name)}/decks`, {}, ThemesUpdated);
      await mutate();
      return decks;
    },
  };
}
