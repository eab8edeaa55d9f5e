import { Extension } from "@tiptap/core";
import { Plugin, PluginKey } from "@tiptap/pm/state";
import { Decoration, DecorationSet } from "@tiptap/pm/view";

/** Where somebody else writes in the same text. */
export interface Caret {
  /** The page of their browser. */
  page: string;
  name: string;
  colour: string;
  /** The position in the document of the editor. */
  at: number;
}

const key = new PluginKey<DecorationSet>("carets");

/** Returns a caret in the colour of a person, with the name above it. */
function drawn({ name, colour }: Caret): HTMLElement {
  const caret = document.createElement("span");
  caret.className = "other-caret";
  caret.dataset.caret = name;
  caret.style.setProperty("--person", colour);
  return caret;
}

/** Shows the carets of others; they move with the text until their pages say where they are now. */
export const Carets = Extension.create({
  name: "carets",
  addProseMirrorPlugins: () => [
    new Plugin({
      key,
      state: {
        init: () => DecorationSet.empty,
        apply: (transaction, shown) => {
          const carets = transaction.getMeta(key) as readonly Caret[] | undefined;
          if (!carets) return shown.map(transaction.mapping, transaction.doc);
          const most = transaction.doc.content.size;
          return DecorationSet.create(
            transaction.doc,
            carets.map((caret) =>
              Decoration.widget(Math.min(caret.at, most), () => drawn(caret), {
                key: `${caret.page} ${caret.name}`,
                side: 1,
              }),
            ),
          );
        },
      },
      props: { decorations: (state) => key.getState(state) },
    }),
  ],
});

/** The word by which carets are given to an editor with a transaction. */
export const CARETS = key;
