import { Collection, type CollectionAsked, type HandIn } from "@unitext/server/api";
import { Layers } from "lucide-react";
import { useEffect, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import useSWR from "swr";
import { get, remove, send } from "../api/client";
import { KeptSlide } from "../deck/KeptSlide";
import { useJobs } from "../jobs";
import { Page, Section } from "../people/Page";
import { CopyField } from "../ui/CopyField";
import { QrCode } from "../ui/QrCode";
import { CollectionForm } from "./CollectionForm";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** One collection: its link, what was handed in, who is missing, and the way to gather all. */
export default function CollectionPage() {
  const { collection: id = "" } = useParams();
  const path = `/collections/${id}`;
  const { data, error, mutate } = useSWR(path, () => get(path, Collection));
  const [changing, setChanging] = useState(false);
  const [code, setCode] = useState(false);
  const [problem, setProblem] = useState("");
  const navigate = useNavigate();
  // What is handed in is read by a job of this person, of which the page is told.
  const jobs = useJobs();
  const states = jobs.map((job) => `${job.id} ${job.state}`).join();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the list is read again when a job changes its state.
  useEffect(() => void mutate(), [states]);
  const change = async (next: CollectionAsked | { closed: boolean }) => {
    try {
      await mutate(await send("PUT", path, next, Collection), { revalidate: false });
      setProblem("");
      return true;
    } catch (reason) {
      setProblem((reason as Error).message);
      return false;
    }
  };
  if (error) return <Page title="Collection">{<p role="alert">{(error as Error).message}</p>}</Page>;
  if (!data) return <Page title="Collection">{null}</Page>;
  const { title, path: address, dueAt, closed, handIns, missing, expected } = data;
  const newest = handIns.filter((one) => one.newest && one.deck !== null && one.state === "read");
  return (
    <Page
      title={title}
      lead={`${closed ? "Closed. " : ""}${dueAt ? `Due ${when.format(new Date(dueAt))}. ` : ""}${new Set(handIns.map(({ name }) => name)).size}${expected.length ? ` of ${expected.length}` : ""} handed in.`}
    >
      {problem && (
        <p role="alert" className="border-error mb-3 border-l-4 pl-2">
          {problem}
        </p>
      )}
      {address === null ? (
        <p className="border-warning mb-2 border-l-4 pl-2 text-sm">
          This house has another key than when the collection was made, so its address is not known here. Whoever has it
          can still use it.
        </p>
      ) : (
        <CopyField label="Link to hand in" value={window.location.origin + address} />
      )}
      {code && address && (
        <QrCode value={window.location.origin + address} label="QR code of the link" className="mt-2 w-40" />
      )}
      <div className="my-2 flex flex-wrap gap-1">
        <button type="button" className="btn btn-sm" aria-pressed={code} onClick={() => setCode(!code)}>
          QR code
        </button>
        <button type="button" className="btn btn-sm" onClick={() => setChanging(!changing)}>
          Change …
        </button>
        <button type="button" className="btn btn-sm" onClick={() => void change({ closed: !closed })}>
          {closed ? "Open again" : "Close"}
        </button>
        <button
          type="button"
          className="btn btn-sm"
          title="Deletes the list and the link; the decks stay in their folder"
          onClick={() => void remove(path).then(() => navigate("/collections"))}
        >
          Delete the collection, keep its decks
        </button>
        {newest.length > 0 && (
          <Link
            className="btn btn-primary btn-sm ml-auto"
            to={`/gather?decks=${newest.map(({ deck }) => deck).join(",")}`}
            title="Puts the newest of each name into one list, in their order; none of them is touched"
          >
            <Layers size={16} aria-hidden="true" /> Gather {newest.length === 1 ? "one deck" : `${newest.length} decks`}
          </Link>
        )}
      </div>
      {changing && (
        <CollectionForm
          terms={data}
          act="Save"
          onCancel={() => setChanging(false)}
          onSend={async (terms) => {
            if (await change(terms)) setChanging(false);
          }}
        />
      )}
      <Section title="Handed in">
        {handIns.length === 0 ? (
          <p className="quiet">Nothing yet. Send the link to those who hand in; what comes is listed here at once.</p>
        ) : (
          <table className="w-full text-sm">
            <tbody>
              {handIns.map((one) => (
                <HandInRow key={one.id} handIn={one} />
              ))}
            </tbody>
          </table>
        )}
      </Section>
      {expected.length > 0 && (
        <Section title={missing.length === 0 ? "Nobody is missing" : `Missing: ${missing.length}`}>
          <ul className="columns-2 text-sm sm:columns-3">
            {missing.map((name) => (
              <li key={name}>{name}</li>
            ))}
          </ul>
        </Section>
      )}
    </Page>
  );
}

function HandInRow({ handIn }: { handIn: HandIn }) {
  const { name, file, at, late, nth, newest, deck, state, message, slides, version } = handIn;
  return (
    <tr className={`hairline border-t align-middle ${newest ? "" : "opacity-70"}`}>
      <td className="w-28 py-2 pr-3">
        {deck && state === "read" && (
          <Link
            to={`/decks/${deck}/arrange`}
            tabIndex={-1}
            aria-hidden="true"
            className="hairline block aspect-video w-24 border"
          >
            <KeptSlide deck={deck} version={version} label="First slide" />
          </Link>
        )}
      </td>
      <td className="py-2 pr-3">
        {deck && state === "read" ? (
          <Link className="font-semibold underline-offset-4 hover:underline" to={`/decks/${deck}/arrange`}>
            {name}
          </Link>
        ) : (
          <strong>{name}</strong>
        )}
        <p className="quiet">
          {file}, {when.format(new Date(at))}
        </p>
        {state === "failed" && <p className="text-error">{message ?? "The deck was deleted."}</p>}
      </td>
      <td className="py-2 pr-3">
        {late && <span className="bg-warning text-warning-content mr-1 px-1">late</span>}
        {nth > 1 && <span className="bg-base-300 mr-1 px-1">hand-in {nth}</span>}
        {!newest && <span className="quiet">an earlier one</span>}
      </td>
      <td className="py-2 text-right">
        {state === "waiting"
          ? "being read …"
          : state === "read"
            ? `${slides} ${slides === 1 ? "slide" : "slides"}`
            : ""}
      </td>
    </tr>
  );
}
