// Clients that edit while server and database are killed and answers are dropped.
import { SCALE, told, serverProcess, databaseProcess, wait, id, json, sql, person, newDeck } from "./service.mjs";

/** A client that edits one deck: it keeps its changes until they are acknowledged, and some answers are dropped. */
async function editor(ask, deck, until, made, acknowledged) {
  let version = 0;
  while (Date.now() < until.edits) {
    const change = {
      id: id(),
      change: {
        kind: "insertSlide",
        slide: { id: id(), parent: null, arrangement: "points", elements: [], notes: [], hidden: false },
        place: { parent: null, after: null },
      },
    };
    made.push(change.id);
    for (;;) {
      if (Date.now() > until.end) return;
      const cut = new AbortController();
      const drop = Math.random() < 0.1;
      if (drop) setTimeout(() => cut.abort(), Math.random() * 30);
      else setTimeout(() => cut.abort(), 15_000).unref();
      try {
        const response = await ask(`/api/decks/${deck}/changes`, {
          ...json({ base: version, changes: [change] }),
          signal: cut.signal,
        });
        const body = await response.json();
        if (response.status === 200) {
          version = body.version;
          acknowledged.push(change.id);
          break;
        }
        if (response.status === 409) version = body.state?.version ?? version;
        else await wait(100 + Math.random() * 200);
      } catch {
        await wait(50 + Math.random() * 200);
      }
    }
    await wait(10);
  }
}

export async function faults() {
  const asks = await Promise.all(Array.from({ length: 4 }, (_, nth) => person(`writer${nth}`)));
  const decks = await Promise.all(asks.map((ask) => newDeck(ask)));
  const begun = Date.now();
  const until = { edits: begun + SCALE.seconds * 1000, end: begun + SCALE.seconds * 1000 + 60_000 };
  const [made, acknowledged] = [[], []];
  const clients = Array.from({ length: SCALE.clients }, (_, nth) =>
    editor(asks[nth % 4], decks[nth % 4], until, made, acknowledged),
  );
  const pause = (SCALE.seconds * 1000) / (SCALE.kills * 2 + 1);
  for (let nth = 0; nth < SCALE.kills; nth++) {
    await wait(pause);
    process.kill(serverProcess(), "SIGKILL");
    await wait(pause);
    process.kill(databaseProcess(), "SIGKILL");
  }
  await Promise.all(clients);
  const rows = await sql(
    "select change_id, count(*)::int as n from changes where change_id = any($1) group by change_id",
    [made],
  );
  const counted = new Map(rows.map(({ change_id, n }) => [change_id, n]));
  const lost = acknowledged.filter((one) => !counted.has(one)).length;
  const doubled = [...counted.values()].filter((n) => n > 1).length;
  const slides = await sql("select count(*)::int as n from slides where deck_id = any($1)", [decks]);
  const start = decks.length * 3;
  told(
    "edits under faults",
    lost === 0 && doubled === 0 && acknowledged.length > 0 && slides[0].n - start === counted.size,
    `${SCALE.clients} clients for ${SCALE.seconds} s, server and database killed ${SCALE.kills} times each, answers dropped: ${acknowledged.length} acknowledged, ${lost} lost, ${doubled} doubled, ${slides[0].n - start} slides for ${counted.size} changes`,
  );
}
