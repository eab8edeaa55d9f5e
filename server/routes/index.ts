export { createApp, type Site } from "./app";

export type { AppContext } from "./context";
export { LIMITS } from "./uploads";
export { Announcements, newsFrom } from "./events";
