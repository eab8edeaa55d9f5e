import type { Comparison } from "@unitext/core/diff";
import type { Deck } from "@unitext/core/model";
import { useEffect, useState } from "react";
import useSWR from "swr";
import { core } from "../worker";

/** Compares this deck with the result of `load`, in the worker. */
export function useComparison(
  here: Deck,
  key: string | undefined,
  load: () => Promise<Deck>,
): { there: Deck | undefined; comparison: Comparison | undefined; error: Error | undefined } {
  const { data: there, error } = useSWR<Deck, Error>(key ?? null, load, { revalidateOnFocus: false });
  const [found, setFound] = useState<{ there: Deck; comparison: Comparison }>();
  useEffect(() => {
    let gone = false;
    if (there) void core.compare(here, there).then((comparison) => !gone && setFound({ there, comparison }));
    return () => {
      gone = true;
    };
  }, [here, there]);
  return { there, comparison: there && found?.there === there ? found.comparison : undefined, error };
}
