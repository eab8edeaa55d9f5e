import { originOf, type PageAsked, type PublishedPage, PublishedPages } from "@unitext/server/api";
import { useState } from "react";
import useSWR from "swr";
import { get, post, send } from "../api/client";
import { CopyField } from "../ui/CopyField";
import { QrCode } from "../ui/QrCode";

const day = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });

/** The pages as which a deck is published: everybody who has the address sees the slides. */
export function PagesSection({ path, onProblem }: { path: string; onProblem: (problem: string) => void }) {
  const { data, mutate } = useSWR(`${path}/pages`, () => get(`${path}/pages`, PublishedPages));
  const [making, setMaking] = useState(false);
  const ask = async (request: () => Promise<PublishedPages>): Promise<boolean> => {
    try {
      await mutate(await request(), { revalidate: false });
      onProblem("");
      return true;
    } catch (error) {
      onProblem((error as Error).message);
      return false;
    }
  };
  return (
    <section className="mt-5">
      <h3 className="mb-2 font-semibold">As a page</h3>
      <ul className="flex flex-col gap-3">
        {data?.pages.map((page) => (
          <PageCard
            key={page.id}
            page={page}
            version={data.version}
            onChange={(asked) => ask(() => send("PUT", `${path}/pages/${page.id}`, asked, PublishedPages))}
            onTakeBack={() => void ask(() => send("DELETE", `${path}/pages/${page.id}`, {}, PublishedPages))}
          />
        ))}
      </ul>
      {making && data ? (
        <PageForm
          version={data.version}
          act="Publish"
          onCancel={() => setMaking(false)}
          onSend={async (asked) => {
            if (await ask(() => post(`${path}/pages`, asked, PublishedPages))) setMaking(false);
          }}
        />
      ) : (
        <div className="mt-2">
          {data?.pages.length === 0 && (
            <p className="quiet mb-2 text-sm">
              It is not published. A page is for everybody: to put on a course page, or on a screen in a hall.
            </p>
          )}
          <button type="button" className="btn btn-sm" onClick={() => setMaking(true)}>
            Publish as a page …
          </button>
        </div>
      )}
    </section>
  );
}

function PageCard({
  page,
  version,
  onChange,
  onTakeBack,
}: {
  page: PublishedPage;
  version: number;
  onChange: (asked: PageAsked) => Promise<boolean>;
  onTakeBack: () => void;
}) {
  const [changing, setChanging] = useState(false);
  const [code, setCode] = useState(false);
  const { id, notes, turning, origins, views, createdAt } = page;
  const address = `${window.location.origin}/page/${id}`;
  const words = [
    page.version === null ? "Always the latest" : "One state for good",
    notes ? "with notes" : "without notes",
    ...(turning
      ? [`plays by itself, ${turning.seconds} s a slide${turning.loop ? ", from the beginning again at the end" : ""}`]
      : []),
    `opened ${views === 1 ? "once" : `${views} times`} since ${day.format(new Date(createdAt))}`,
  ];
  return (
    <li className="hairline border p-3 text-sm" data-page={id}>
      <p className="mb-2">{words.join(", ")}.</p>
      <CopyField label="Address of the page" value={address} />
      {origins.length > 0 && (
        <div className="mt-2">
          <p className="quiet mb-1">To show it in {origins.join(", ")}:</p>
          <CopyField
            label="Code to embed the page"
            value={`<iframe src="${address}" width="960" height="600" title="Slides" allowfullscreen></iframe>`}
          />
        </div>
      )}
      {code && <QrCode value={address} label="QR code of the page" className="mt-2 w-40" />}
      <div className="mt-2 flex flex-wrap gap-1">
        <button type="button" className="btn btn-ghost btn-sm" aria-pressed={code} onClick={() => setCode(!code)}>
          QR code
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => setChanging(!changing)}>
          Change …
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onTakeBack}>
          Take back
        </button>
      </div>
      {changing && (
        <PageForm
          page={page}
          version={version}
          act="Save"
          onCancel={() => setChanging(false)}
          onSend={async (asked) => {
            if (await onChange(asked)) setChanging(false);
          }}
        />
      )}
    </li>
  );
}

function PageForm({
  page,
  version,
  act,
  onCancel,
  onSend,
}: {
  page?: PublishedPage;
  /** The version of the deck now. */
  version: number;
  act: string;
  onCancel: () => void;
  onSend: (asked: PageAsked) => Promise<void>;
}) {
  const [fixed, setFixed] = useState(page ? page.version !== null : false);
  const [notes, setNotes] = useState(page?.notes ?? false);
  const [turns, setTurns] = useState(page?.turning !== null && page !== undefined);
  const [seconds, setSeconds] = useState(page?.turning?.seconds ?? 12);
  const [loop, setLoop] = useState(page?.turning?.loop ?? true);
  const [sites, setSites] = useState(page?.origins.join("\n") ?? "");
  const lines = sites
    .split(/\s+/)
    .map((line) => line.trim())
    .filter(Boolean);
  const wrong = lines.find((line) => originOf(line) === undefined);
  const check = (label: string, on: boolean, set: (on: boolean) => void) => (
    <label className="flex min-h-6 items-center gap-2">
      <input
        type="checkbox"
        className="checkbox checkbox-sm"
        checked={on}
        onChange={({ target }) => set(target.checked)}
      />
      {label}
    </label>
  );
  return (
    <form
      className="hairline mt-2 flex flex-col gap-2 border p-3 text-sm"
      onSubmit={(event) => {
        event.preventDefault();
        void onSend({
          version: fixed ? (page?.version ?? version) : null,
          notes,
          turning: turns ? { seconds, loop } : null,
          origins: [...new Set(lines.flatMap((line) => originOf(line) ?? []))],
        });
      }}
    >
      {check("Keep it as the deck is now, whatever is changed later", fixed, setFixed)}
      {check("Show the notes too", notes, setNotes)}
      {check("Play by itself", turns, setTurns)}
      {turns && (
        <div className="ml-6 flex flex-wrap items-center gap-4">
          <label className="flex items-center gap-2">
            Seconds a slide
            <input
              type="number"
              min={0.5}
              max={3600}
              step={0.5}
              required
              className="input input-sm w-24 text-right"
              value={seconds}
              onChange={({ target }) => setSeconds(target.valueAsNumber || 12)}
            />
          </label>
          {check("Start again at the end", loop, setLoop)}
        </div>
      )}
      <label>
        Sites that may show it in a frame, each as https://course.example (empty: none)
        <textarea
          rows={2}
          className="textarea textarea-sm mt-1 flex w-full font-mono"
          value={sites}
          onChange={({ target }) => setSites(target.value)}
        />
      </label>
      {wrong && (
        <p role="alert" className="border-error border-l-4 pl-2">
          “{wrong}” is no address of a site. Write it as https://course.example.
        </p>
      )}
      <div className="flex gap-2">
        <button type="submit" className="btn btn-primary btn-sm" disabled={wrong !== undefined}>
          {act}
        </button>
        <button type="button" className="btn btn-ghost btn-sm" onClick={onCancel}>
          Cancel
        </button>
      </div>
    </form>
  );
}
