import { batch, putTheme } from "@unitext/core/edit";
import { canonical, checked } from "@unitext/core/model";
import express, { Router } from "express";
import { type SavedThemes, ThemeName, type ThemesUpdated, ThemeSent } from "../api";
import { applyToDecks, decksInTheme, deleteTheme, loadDecks, storedThemes, storeTheme } from "../store";
import { type AppContext, body, route } from "./context";
import { LIMITS } from "./uploads";

/** How many themes a person may save. */
const MOST = 200;

/** Routes for the themes that a person saves and puts on decks. */
export function themeRoutes({ db }: AppContext): Router {
  const routes = Router();
  const json = express.json({ limit: LIMITS.json });

  routes.get(
    "/themes",
    route(async ({ response, user }) => {
      response.json({ themes: await storedThemes(db, user.id) } satisfies SavedThemes);
    }),
  );

  routes.put(
    "/themes",
    json,
    route(async ({ request, response, user }) => {
      const { theme } = body(ThemeSent, request);
      const saved = await storedThemes(db, user.id);
      const isNew = !saved.some((one) => one.theme.name === theme.name);
      if (isNew && saved.length >= MOST) {
        const message = `You have ${MOST} saved designs, the most that there can be. Delete one, or save under the name of one.`;
        response.status(413).json({ error: { code: "too-large", message } });
        return;
      }
      await storeTheme(db, user.id, theme);
      response.status(204).end();
    }),
  );

  /** Gives the saved theme to all decks of the person that have one of its name. */
  routes.post(
    "/themes/:name/decks",
    json,
    route(async ({ request, response, user }) => {
      const name = checked(ThemeName, request.params.name, "The name");
      const saved = (await storedThemes(db, user.id)).find(({ theme }) => theme.name === name);
      const ids = saved ? await decksInTheme(db, user.id, name) : [];
      const behind = [...(await loadDecks(db, ids, user.id)).values()].filter(
        ({ deck }) => saved && canonical(deck.theme) !== canonical(saved.theme),
      );
      const taken = await applyToDecks(
        db,
        user.id,
        behind.flatMap(({ deck, version }) =>
          saved ? [{ deck, version, change: batch(putTheme(deck, saved.theme)), description: `Design “${name}”` }] : [],
        ),
      );
      response.json({ decks: taken.size } satisfies ThemesUpdated);
    }),
  );

  routes.delete(
    "/themes/:name",
    route(async ({ request, response, user }) => {
      await deleteTheme(db, user.id, checked(ThemeName, request.params.name, "The name"));
      response.status(204).end();
    }),
  );
  return routes;
}
