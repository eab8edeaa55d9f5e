export { clock } from "@unitext/core/model";

/** Resolves in a later task, after a wait in milliseconds, so that the page can draw and respond meanwhile. */
export const nextTask = (wait = 0) => new Promise<void>((resolve) => setTimeout(resolve, wait));
