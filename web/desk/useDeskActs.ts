import type { DeckRow } from "@unitext/server/api";
import { useState } from "react";
import { z } from "zod";
import { post, put, remove } from "../api/client";

const NewId = z.object({ id: z.string() });

/** What was done on the Desk, and how it is undone. */
export interface Done {
  words: string;
  undo?: () => Promise<unknown>;
}

/** The acts on decks and folders of the Desk. Each says what it did in one line, and how to undo it. */
export function useDeskActs(onChanged: () => Promise<unknown>, onProblem: (text: string) => void) {
  const [done, setDone] = useState<Done>();
  const run = async (work: () => Promise<Done | undefined>) => {
    try {
      setDone(await work());
    } catch (error) {
      onProblem((error as Error).message);
    }
    await onChanged();
  };
  const all = (rows: readonly DeckRow[]) => (rows.length === 1 ? `“${rows[0]?.title}”` : `${rows.length} decks`);
  const each = (rows: readonly DeckRow[], act: (row: DeckRow) => Promise<unknown>) => Promise.all(rows.map(act));
  const restore = (rows: readonly DeckRow[]) =>
    run(async () => {
      await each(rows, ({ id }) => remove(`/decks/${id}/bin`));
      return { words: `Took ${all(rows)} out of the bin` };
    });
  return {
    done,
    dismiss: () => setDone(undefined),
    undo: async () => {
      const undo = done?.undo;
      setDone(undefined);
      try {
        await undo?.();
      } catch (error) {
        onProblem((error as Error).message);
      }
      await onChanged();
    },
    bin: (rows: readonly DeckRow[]) =>
      run(async () => {
        await each(rows, ({ id }) => put(`/decks/${id}/bin`, {}));
        return {
          words: `Put ${all(rows)} into the bin`,
          undo: () => each(rows, ({ id }) => remove(`/decks/${id}/bin`)),
        };
      }),
    restore,
    deleteForGood: (rows: readonly DeckRow[]) =>
      run(async () => {
        await each(rows, ({ id }) => remove(`/decks/${id}`));
        return { words: `Deleted ${all(rows)} for good` };
      }),
    copy: (row: DeckRow) =>
      run(async () => {
        const { id } = await post(`/decks/${row.id}/copies`, {}, NewId);
        return { words: `Copied “${row.title}”`, undo: () => put(`/decks/${id}/bin`, {}) };
      }),
    rename: (row: DeckRow, title: string) =>
      run(async () => {
        await put(`/decks/${row.id}/title`, { title });
        return { words: `Named it “${title}”`, undo: () => put(`/decks/${row.id}/title`, { title: row.title }) };
      }),
    move: (rows: readonly DeckRow[], folder: string | null, name: string) =>
      run(async () => {
        await each(rows, ({ id }) => put(`/decks/${id}/folder`, { folder }));
        return {
          words: folder === null ? `Took ${all(rows)} out of the folder` : `Moved ${all(rows)} to “${name}”`,
          undo: () => each(rows, (row) => put(`/decks/${row.id}/folder`, { folder: row.folder })),
        };
      }),
    /** Makes a folder, and puts decks into it. */
    makeFolder: (name: string, rows: readonly DeckRow[] = []) =>
      run(async () => {
        const { id } = await post("/folders", { name }, NewId);
        await each(rows, (row) => put(`/decks/${row.id}/folder`, { folder: id }));
        return { words: `Made the folder “${name}”`, undo: () => remove(`/folders/${id}`) };
      }),
    renameFolder: (id: string, before: string, name: string) =>
      run(async () => {
        await put(`/folders/${id}`, { name });
        return { words: `Named the folder “${name}”`, undo: () => put(`/folders/${id}`, { name: before }) };
      }),
    deleteFolder: (id: string, name: string) =>
      run(async () => {
        await remove(`/folders/${id}`);
        return { words: `Deleted the folder “${name}”; its decks are on the Desk` };
      }),
  };
}
export type DeskActs = ReturnType<typeof useDeskActs>;
