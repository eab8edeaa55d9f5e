import type { Bound } from "@unitext/core/data";
import type { BindingMode, BindingUse, ChartType } from "@unitext/core/model";
import { BoundCells } from "@unitext/server/api";
import { useEffect, useState } from "react";
import { post } from "../api/client";
import { useDeck } from "../deck/DeckContext";

/** Takes cells as they would be put on a slide; they are asked for when the choice has rested for a moment. */
export function useBoundCells({
  source,
  range,
  use,
  mode,
  chartType,
  format = "",
}: {
  source: string | undefined;
  range: string | undefined;
  use: BindingUse | undefined;
  mode: BindingMode;
  chartType?: ChartType | undefined;
  /** A number format instead of the cells' own; empty for theirs. */
  format?: string;
}) {
  const { deck } = useDeck();
  const [bound, setBound] = useState<Bound>();
  const [problem, setProblem] = useState("");
  useEffect(() => {
    setBound(undefined);
    setProblem("");
    if (range === undefined || source === undefined) return;
    let gone = false;
    const timer = setTimeout(() => {
      const asked = {
        source,
        range,
        mode,
        ...(use ? { use } : {}),
        ...(chartType ? { chartType } : {}),
        ...(format.trim() ? { format: format.trim() } : {}),
      };
      post(`/decks/${deck.id}/bindings`, asked, BoundCells).then(
        (made) => !gone && setBound(made),
        (reason: Error) => !gone && setProblem(reason.message),
      );
    }, 150);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [deck.id, source, range, use, mode, chartType, format]);
  return { bound, problem };
}
