import { wrap } from "comlink";
import type { CoreWorker } from "./core.worker";

/** The one worker of the page: scenes, measurements and texts come from it. */
export const core = wrap<CoreWorker>(new Worker(new URL("./core.worker.ts", import.meta.url), { type: "module" }));
export type { Cutting, DrawnSlide, Followed, LayoutItem, TakenReview } from "./core";
