import { countWords, textOf } from "@unitext/core/model";
import { type Form, textsOf } from "./form";

/** The most words of a large quotation, and of the line that names its source. */
const QUOTATION = { most: 45, source: 14 } as const;

/** A quotation below a title, large, with the line that names its source. */
export const quotation: Form = {
  reason: "titled-quotation",
  suits: 0.85,
  of(page) {
    const texts = textsOf(page);
    const [quote, source, ...more] = texts ?? [];
    if (!quote?.quote || source?.quote || source?.heading || more.length) return undefined;
    if (countWords(textOf(quote.text)) > QUOTATION.most) return undefined;
    const isSource = source?.text.length === 1 && source.text[0]?.kind === "plain";
    if (source && (!isSource || countWords(textOf(source.text)) > QUOTATION.source)) return undefined;
    return {
      ...page,
      flow: [quote],
      slots: new Map(source ? [["caption", [source]]] : []),
      arrangement: "message",
    };
  },
};
