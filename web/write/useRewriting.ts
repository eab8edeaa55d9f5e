import { PointService, PointsProposed } from "@unitext/server/api";
import { type PointFault, POINT_FAULTS } from "@unitext/core/model";
import { useRef, useState } from "react";
import useSWR from "swr";
import { get, post } from "../api/client";
import type { SlidePoints } from "./slidepoints";

/** What a service wrote for a sentence: a point, or what was wrong with it. */
export type Rewritten = { point: string } | { faults: readonly PointFault[] };

/** Says in words why a point of a service was not taken. */
export const faultWords = (faults: readonly PointFault[]): string =>
  faults.map((fault) => POINT_FAULTS[fault]).join("; ");

/** Groups the sentences of slides by their paragraphs. */
function paragraphsOf(slides: readonly SlidePoints[]): string[][] {
  return slides.flatMap(({ points }) => {
    const byParagraph = new Map<number, string[]>();
    for (const { paragraph, sentence } of points)
      byParagraph.set(paragraph, [...(byParagraph.get(paragraph) ?? []), sentence]);
    return [...byParagraph.values()];
  });
}

/** How many paragraphs are asked for at once, so that progress can be shown. */
const BATCH = 20;

/**
 * Asking the service that writes points, where one is set up: its host, how far it is, and what it said. `onRewritten` takes
 * what it wrote for some sentences, and returns how many points have new words and how many keep theirs for a fault.
 */
export function useRewriting(
  slides: readonly SlidePoints[],
  language: string,
  onRewritten: (made: ReadonlyMap<string, Rewritten>) => { taken: number; refused: number },
) {
  const { data } = useSWR("/points/service", (path: string) => get(path, PointService));
  const [progress, setProgress] = useState<{ done: number; all: number }>();
  const [remark, setRemark] = useState("");
  const running = useRef<AbortController>(undefined);

  async function rewrite() {
    const paragraphs = paragraphsOf(slides);
    const stop = new AbortController();
    running.current = stop;
    setRemark("");
    let [taken, refused, said] = [0, 0, ""];
    try {
      for (let at = 0; at < paragraphs.length && !said; at += BATCH) {
        setProgress({ done: at, all: paragraphs.length });
        const batch = paragraphs.slice(at, at + BATCH);
        const asked = { engine: "service", language, paragraphs: batch };
        const answer = await post("/points", asked, PointsProposed, { signal: stop.signal });
        const made = new Map<string, Rewritten>();
        answer.paragraphs.forEach((list, nth) => {
          list.forEach((proposed, place) => {
            const sentence = batch[nth]?.[place];
            if (!proposed || sentence === undefined) return;
            made.set(sentence, proposed.faults.length ? { faults: proposed.faults } : { point: proposed.point });
          });
        });
        const counts = onRewritten(made);
        taken += counts.taken;
        refused += counts.refused;
        said = answer.remark;
      }
    } catch (error) {
      said = stop.signal.aborted ? "Stopped." : error instanceof Error ? error.message : String(error);
    } finally {
      setProgress(undefined);
      running.current = undefined;
    }
    const kept = refused ? ` ${refused} did not pass the checks and stay as they were; each says why.` : "";
    setRemark(`${said ? `${said} ` : ""}${taken} points rewritten.${kept}`);
  }

  return { host: data?.service?.host, progress, remark, rewrite, cancel: () => running.current?.abort() };
}
