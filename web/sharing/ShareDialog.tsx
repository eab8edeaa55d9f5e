import { People, type Share, type ShareAsked, type SharedRight, Sharing } from "@unitext/server/api";
import { X } from "lucide-react";
import { useState } from "react";
import useSWR from "swr";
import { get, post, send } from "../api/client";
import { Dialog } from "../ui/Dialog";
import { LinkCard } from "./LinkCard";
import { LinkForm } from "./LinkForm";
import { PagesSection } from "./PagesSection";
import { RIGHT_WORDS, scopeWords, type SharedThing } from "./rights";

/** Who sees what of a deck or a folder: people of the house, and links. Only for its owner. */
export function ShareDialog({ thing, onClose }: { thing: SharedThing; onClose: () => void }) {
  const path = `${thing.path}/sharing`;
  const { data, error, mutate } = useSWR(path, () => get(path, Sharing), { revalidateOnFocus: true });
  const [problem, setProblem] = useState("");
  const [making, setMaking] = useState(false);
  /** Asks the server, whose answer is the new state. */
  const ask = async (request: () => Promise<Sharing>): Promise<boolean> => {
    setProblem("");
    try {
      await mutate(await request(), { revalidate: false });
      return true;
    } catch (reason) {
      setProblem((reason as Error).message);
      return false;
    }
  };
  return (
    <Dialog
      title={`Share “${thing.name}”`}
      lead="Who sees what. What you take back ends at once, also in pages that are open."
      width="wider"
      onClose={onClose}
      actions={(close) => (
        <button type="button" className="btn btn-primary" onClick={close}>
          Done
        </button>
      )}
    >
      {(problem || error) && (
        <p role="alert" className="border-error mb-3 border-l-4 pl-2 text-sm">
          {problem || (error as Error).message}
        </p>
      )}
      {data && (
        <>
          <PeopleTable
            sharing={data}
            thing={thing}
            onShare={(share) => void ask(() => send("PUT", `${path}/people`, share, Sharing))}
          />
          <section className="mt-5">
            <h3 className="mb-2 font-semibold">By link</h3>
            <ul className="flex flex-col gap-3">
              {data.links.map((link) => (
                <LinkCard
                  key={link.id}
                  link={link}
                  // A folder's links are changed at the folder.
                  inherited={link.scope === "folder" && !thing.folder}
                  translations={data.translations}
                  thing={thing}
                  onChange={(terms) => ask(() => send("PUT", `${path}/links/${link.id}`, terms, Sharing))}
                  onRenew={() => void ask(() => post(`${path}/links/${link.id}/renewals`, {}, Sharing))}
                  onTakeBack={() => void ask(() => send("DELETE", `${path}/links/${link.id}`, {}, Sharing))}
                />
              ))}
            </ul>
            {making ? (
              <LinkForm
                thing={thing}
                translations={data.translations}
                act="Make the link"
                onCancel={() => setMaking(false)}
                onSend={async (terms) => {
                  if (await ask(() => post(`${path}/links`, terms, Sharing))) setMaking(false);
                }}
              />
            ) : (
              <div className="mt-2">
                {data.links.length === 0 && (
                  <p className="quiet mb-2 text-sm">
                    Nobody reaches {thing.folder ? "these decks" : "this deck"} by a link. Whoever has a link needs no
                    account.
                  </p>
                )}
                <button type="button" className="btn btn-sm" onClick={() => setMaking(true)}>
                  New link …
                </button>
              </div>
            )}
          </section>
          {!thing.folder && <PagesSection path={thing.path} onProblem={setProblem} />}
        </>
      )}
    </Dialog>
  );
}

/** The people of the house who have a right, and a field to give one to somebody else. */
function PeopleTable({
  sharing,
  thing,
  onShare,
}: {
  sharing: Sharing;
  thing: SharedThing;
  onShare: (share: ShareAsked) => void;
}) {
  const { data } = useSWR("/people", () => get("/people", People));
  const [user, setUser] = useState("");
  const known = new Set([sharing.owner.id, ...sharing.shares.map((share) => share.user)]);
  const others = data?.people.filter(({ id }) => !known.has(id)) ?? [];
  const scope = thing.folder ? "folder" : sharing.translations > 0 ? "translations" : "deck";
  return (
    <section>
      <h3 className="mb-1 font-semibold">People of the house</h3>
      <table className="w-full text-sm">
        <tbody>
          <tr>
            <th scope="row" className="py-1 pr-3 max-sm:pr-2 text-left font-normal">
              {sharing.owner.name}
            </th>
            <td className="py-1 pr-3 max-sm:pr-2">owns it</td>
            <td className="py-1 pr-3 max-sm:pr-2">with notes</td>
            <td />
          </tr>
          {sharing.shares.map((share) => (
            <ShareRow
              key={`${share.user} ${share.scope}`}
              share={share}
              inherited={share.scope === "folder" && !thing.folder}
              folder={sharing.folder?.name ?? ""}
              translations={sharing.translations}
              onShare={onShare}
            />
          ))}
        </tbody>
      </table>
      {others.length > 0 ? (
        <form
          className="mt-2 flex gap-2"
          onSubmit={(event) => {
            event.preventDefault();
            if (user) onShare({ user, scope, right: "view", notes: true });
            setUser("");
          }}
        >
          <select
            aria-label="Somebody to share with"
            className="select select-sm w-60"
            value={user}
            onChange={({ target }) => setUser(target.value)}
          >
            <option value="">Choose somebody …</option>
            {others.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
          <button type="submit" className="btn btn-sm" disabled={!user}>
            Add
          </button>
        </form>
      ) : (
        data && <p className="quiet mt-1 text-sm">Nobody else has an account of this house.</p>
      )}
    </section>
  );
}

function ShareRow({
  share,
  inherited,
  folder,
  translations,
  onShare,
}: {
  share: Share;
  inherited: boolean;
  folder: string;
  translations: number;
  onShare: (share: ShareAsked) => void;
}) {
  const { user, name, scope, right, notes } = share;
  if (inherited)
    return (
      <tr className="hairline border-t">
        <th scope="row" className="py-1 pr-3 max-sm:pr-2 text-left font-normal">
          {name}
        </th>
        <td className="py-1 pr-3 max-sm:pr-2">{RIGHT_WORDS[right]}</td>
        <td className="py-1 pr-3 max-sm:pr-2">{notes ? "with notes" : "without notes"}</td>
        <td className="quiet py-1 text-right">by the folder “{folder}”</td>
      </tr>
    );
  return (
    <tr className="hairline border-t">
      <th scope="row" className="py-1 pr-3 max-sm:pr-2 text-left font-normal">
        {name}
        {scope === "translations" && <span className="quiet"> · {scopeWords(scope, translations)}</span>}
      </th>
      <td className="py-1 pr-3 max-sm:pr-2">
        <select
          aria-label={`What ${name} may do`}
          className="select select-sm w-48 max-sm:w-30"
          value={right}
          onChange={({ target }) => onShare({ user, scope, right: target.value as SharedRight, notes })}
        >
          {(Object.keys(RIGHT_WORDS) as SharedRight[]).map((kind) => (
            <option key={kind} value={kind}>
              {RIGHT_WORDS[kind]}
            </option>
          ))}
        </select>
      </td>
      <td className="py-1 pr-3 max-sm:pr-2 whitespace-nowrap">
        <label className="flex min-h-6 items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={notes}
            disabled={right === "edit"}
            onChange={({ target }) => onShare({ user, scope, right, notes: target.checked })}
          />
          notes
        </label>
      </td>
      <td className="py-1 text-right">
        <button
          type="button"
          className="btn btn-ghost btn-sm btn-square"
          aria-label={`Take it back from ${name}`}
          title={`Take it back from ${name}`}
          onClick={() => onShare({ user, scope, right: null, notes })}
        >
          <X size={16} aria-hidden="true" />
        </button>
      </td>
    </tr>
  );
}
