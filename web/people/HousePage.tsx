import { House, type Invitation, NewLink, type Person } from "@unitext/server/api";
import { MoreHorizontal } from "lucide-react";
import { useState } from "react";
import useSWR from "swr";
import { get, post, put, remove } from "../api/client";
import { useMe } from "../api/entrance";
import { CopyField } from "../ui/CopyField";
import { MenuButton } from "../ui/Menu";
import { Page, Section } from "./Page";

const day = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });
const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** A link that was just made, and what it is for. */
interface Shown extends NewLink {
  lead: string;
}

/** The people of the house, for its owners: invitations, new passwords, roles, closed accounts. */
export default function HousePage() {
  const { data, error, mutate } = useSWR("/house", () => get("/house", House));
  const [shown, setShown] = useState<Shown>();
  const [problem, setProblem] = useState("");
  const run = async (act: () => Promise<unknown>) => {
    setProblem("");
    try {
      await act();
    } catch (reason) {
      setProblem((reason as Error).message);
    }
    await mutate();
  };
  const reset = ({ id, name }: Person) =>
    run(async () => {
      const link = await post(`/house/people/${id}/reset`, {}, NewLink);
      setShown({ ...link, lead: `${name} sets a new password here, once. The link is also in the mail folder.` });
    });
  return (
    <Page
      title="People of the house"
      lead="No mail leaves this machine: pass the links on yourself, or take them from the mail folder beside the data."
    >
      {(error || problem) && (
        <p role="alert" className="border-error mb-3 border-l-4 pl-2">
          {problem || (error as Error).message}
        </p>
      )}
      {shown && (
        <div role="status" className="border-success mb-4 border-l-4 pl-3">
          <p className="mb-1 text-sm">
            {shown.lead} It holds until {when.format(new Date(shown.expiresAt))}, and is shown only now.
          </p>
          <CopyField label="Link" value={window.location.origin + shown.path} />
        </div>
      )}
      {data && (
        <>
          <table className="w-full text-sm">
            <thead>
              <tr className="quiet text-left">
                <th className="py-1 pr-4 font-normal">Name</th>
                <th className="py-1 pr-4 font-normal">Role</th>
                <th className="py-1 pr-4 text-right font-normal max-md:hidden">Decks</th>
                <th className="py-1 pr-4 font-normal max-md:hidden">Second factor</th>
                <th className="py-1 pr-4 font-normal max-md:hidden">Last here</th>
                <th className="py-1" aria-label="Acts" />
              </tr>
            </thead>
            <tbody>
              {data.people.map((person) => (
                <PersonRow
                  key={person.id}
                  person={person}
                  onReset={() => void reset(person)}
                  onChange={(change) => void run(() => put(`/house/people/${person.id}`, change))}
                />
              ))}
            </tbody>
          </table>
          <Invitations
            invitations={data.invitations}
            onMade={(link) => {
              setShown({ ...link, lead: "Whoever opens this link makes an account." });
              void mutate();
            }}
            onTakeBack={({ id }) => void run(() => remove(`/house/invitations/${id}`))}
            onProblem={setProblem}
          />
        </>
      )}
    </Page>
  );
}

function PersonRow({
  person,
  onReset,
  onChange,
}: {
  person: Person;
  onReset: () => void;
  onChange: (change: object) => void;
}) {
  const me = useMe();
  const { id, name, role, decks, secondFactor, closed, usedAt } = person;
  return (
    <tr className={`hairline border-t ${closed ? "quiet" : ""}`}>
      <td className="py-2 pr-4 font-semibold">
        {name} {id === me?.id && <span className="quiet font-normal">· you</span>}
      </td>
      <td className="py-2 pr-4">{closed ? "closed" : role === "owner" ? "owner" : "member"}</td>
      <td className="py-2 pr-4 text-right max-md:hidden">{decks}</td>
      <td className="py-2 pr-4 max-md:hidden">{secondFactor ? "on" : "off"}</td>
      <td className="py-2 pr-4 max-md:hidden">{usedAt ? when.format(new Date(usedAt)) : "never"}</td>
      <td className="py-2 text-right">
        <MenuButton
          label={`More for ${name}`}
          className="btn btn-ghost btn-sm btn-square"
          acts={[
            { label: "Make a link for a new password", disabled: id === "demo" || closed, act: onReset },
            role === "owner"
              ? { label: "Make a member", act: () => onChange({ role: "member" }) }
              : { label: "Make an owner of the house", act: () => onChange({ role: "owner" }) },
            undefined,
            closed
              ? { label: "Open the account again", act: () => onChange({ closed: false }) }
              : {
                  label: "Close the account, keep its decks",
                  disabled: id === me?.id,
                  act: () => onChange({ closed: true }),
                },
          ]}
        >
          <MoreHorizontal size={16} aria-hidden="true" />
        </MenuButton>
      </td>
    </tr>
  );
}

function Invitations({
  invitations,
  onMade,
  onTakeBack,
  onProblem,
}: {
  invitations: readonly Invitation[];
  onMade: (link: NewLink) => void;
  onTakeBack: (invitation: Invitation) => void;
  onProblem: (problem: string) => void;
}) {
  const [uses, setUses] = useState(1);
  const [days, setDays] = useState(7);
  const [role, setRole] = useState<"member" | "owner">("member");
  const invite = async () => {
    try {
      onMade(await post("/house/invitations", { uses, days, role }, NewLink));
    } catch (error) {
      onProblem((error as Error).message);
    }
  };
  return (
    <Section title="Invite people">
      <form
        className="flex flex-wrap items-end gap-3 text-sm"
        onSubmit={(event) => {
          event.preventDefault();
          void invite();
        }}
      >
        <label>
          Accounts
          <input
            type="number"
            min={1}
            max={500}
            required
            className="input input-sm mt-1 flex w-24 text-right"
            value={uses}
            onChange={({ target }) => setUses(target.valueAsNumber || 1)}
          />
        </label>
        <label>
          Days
          <input
            type="number"
            min={1}
            max={90}
            required
            className="input input-sm mt-1 flex w-24 text-right"
            value={days}
            onChange={({ target }) => setDays(target.valueAsNumber || 1)}
          />
        </label>
        <label>
          Role
          <select
            className="select select-sm mt-1 flex w-40"
            value={role}
            onChange={({ target }) => setRole(target.value === "owner" ? "owner" : "member")}
          >
            <option value="member">member</option>
            <option value="owner">owner of the house</option>
          </select>
        </label>
        <button type="submit" className="btn btn-primary btn-sm">
          Make an invitation link
        </button>
      </form>
      {invitations.length > 0 && (
        <ul className="mt-3 text-sm">
          {invitations.map((one) => (
            <li key={one.id} className="hairline flex items-center gap-3 border-t py-1">
              <span className="flex-1">
                {one.uses === 1 ? "One account" : `${one.uses} accounts`} as {one.role}, until{" "}
                {day.format(new Date(one.expiresAt))}, by {one.by}
              </span>
              <button type="button" className="btn btn-ghost btn-sm" onClick={() => onTakeBack(one)}>
                Take back
              </button>
            </li>
          ))}
        </ul>
      )}
    </Section>
  );
}
