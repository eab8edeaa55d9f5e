import { readFileSync } from "node:fs";
import { nanoid } from "nanoid";
import type { Receipt } from "../server/api";
import type { Row } from "./core";
import { ADDRESS, Browser, json } from "./requests";

const DECKS = 30;

/** Thirty decks that are handed in at once: how long the slowest waits for its receipt, and whether all are read. */
export async function handIns(): Promise<Row[]> {
  if (!ADDRESS) return [];
  const owner = new Browser();
  await owner.ask("/me");
  const asked = {
    title: `Hand-ins ${nanoid(6)}`,
    parts: [{ label: "Number", kind: "number" }],
    formats: ["pptx"],
    dueAt: null,
    expected: [],
  };
  const { id } = (await (await owner.ask("/collections", json(asked))).json()) as { id: string };
  const { path } = (await (await owner.ask(`/collections/${id}`)).json()) as { path: string };
  const link = path.split("/").at(-1);
  const bytes = readFileSync("demo/content/quay-in-autumn.pptx");
  const receipts = await Promise.all(
    Array.from({ length: DECKS }, async (_, nth) => {
      const begin = performance.now();
      const reply = await new Browser().ask(`/hand-in/${link}/files?part=${nth + 1}&name=quay.pptx`, {
        method: "POST",
        body: bytes,
      });
      const receipt = (await reply.json()) as Receipt;
      return { milliseconds: performance.now() - begin, accepted: reply.status === 202, receipt };
    }),
  );
  const begin = performance.now();
  let read = 0;
  while (read < DECKS && performance.now() - begin < 120_000) {
    await new Promise((resolve) => setTimeout(resolve, 500));
    const states = await Promise.all(
      receipts.map(
        async ({ receipt: { code } }) => (await (await owner.ask(`/receipts/${code}`)).json()) as { state: string },
      ),
    );
    read = states.filter(({ state }) => state === "read").length;
  }
  const slowest = Math.round(Math.max(...receipts.map(({ milliseconds }) => milliseconds)));
  const refused = receipts.filter(({ accepted }) => !accepted).length + DECKS - read;
  return [
    {
      name: `${DECKS} decks handed in at once: the slowest receipt`,
      ratio: slowest,
      target: 2000,
      holds: slowest <= 2000,
      unit: "ms",
    },
    {
      name: `${DECKS} decks handed in at once: refused or not read`,
      ratio: refused,
      target: 0,
      holds: refused === 0,
      unit: "",
    },
  ];
}
