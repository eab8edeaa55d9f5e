import { Account, type Session } from "@unitext/server/api";
import { LogOut, Users } from "lucide-react";
import { useState } from "react";
import { Link } from "react-router";
import useSWR from "swr";
import { get, put, remove } from "../api/client";
import { Page, Section } from "./Page";
import { PasswordField } from "./PasswordField";
import { SecondFactor } from "./SecondFactor";

const when = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

/** Ends the session of this browser. The page is loaded again, so that nothing of the person stays in it. */
async function signOut(): Promise<void> {
  await fetch("/api/sign-out", { method: "POST" });
  window.location.assign("/sign-in");
}

/** One's own account: password, second factor, sessions. */
export default function AccountPage() {
  const { data, error, mutate } = useSWR("/account", () => get("/account", Account));
  if (error) return <Page title="You">{<p role="alert">{(error as Error).message}</p>}</Page>;
  if (!data) return <Page title="You">{null}</Page>;
  const { me, secondFactor, sessions } = data;
  return (
    <Page
      title={me.name}
      lead={
        me.demo
          ? "This is the demo: whoever uses this computer is this person, without a password."
          : me.role === "guest"
            ? "You came by a link, without an account of this house."
            : me.role === "owner"
              ? "You own this house."
              : "You have an account of this house."
      }
    >
      <div className="flex flex-wrap gap-2">
        {me.role === "owner" && (
          <Link className="btn" to="/house" title="Invite people, set passwords, close accounts">
            <Users size={16} aria-hidden="true" /> People of the house
          </Link>
        )}
        {me.demo || me.role === "guest" ? (
          <a className="btn" href="/sign-in" title="Sign in with an account of this house">
            Sign in as somebody else
          </a>
        ) : (
          <button type="button" className="btn" onClick={() => void signOut()}>
            <LogOut size={16} aria-hidden="true" /> Sign out
          </button>
        )}
      </div>
      {!me.demo && me.role !== "guest" && (
        <>
          <Section title="Password">
            <PasswordChange name={me.name} onChanged={() => void mutate()} />
          </Section>
          <Section title="Second factor">
            <SecondFactor on={secondFactor} onChanged={() => void mutate()} />
          </Section>
        </>
      )}
      <Section title="Where you are signed in">
        <Sessions sessions={sessions} onChanged={() => void mutate()} />
      </Section>
    </Page>
  );
}

function PasswordChange({ name, onChanged }: { name: string; onChanged: () => void }) {
  const [current, setCurrent] = useState("");
  const [next, setNext] = useState("");
  const [said, setSaid] = useState<{ text: string; wrong: boolean }>();
  const change = async () => {
    try {
      await put("/account/password", { current, next });
      setCurrent("");
      setNext("");
      setSaid({ text: "Your password is changed. All other sessions have ended.", wrong: false });
      onChanged();
    } catch (error) {
      setSaid({ text: (error as Error).message, wrong: true });
    }
  };
  return (
    <form
      className="max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        void change();
      }}
    >
      <PasswordField label="Present password" value={current} onChange={setCurrent} />
      <PasswordField label="New password" value={next} newFor={name} onChange={setNext} />
      {said && (
        <p
          role={said.wrong ? "alert" : "status"}
          className={`mb-2 border-l-4 pl-2 ${said.wrong ? "border-error" : "border-success"}`}
        >
          {said.text}
        </p>
      )}
      <button type="submit" className="btn">
        Change the password
      </button>
    </form>
  );
}

function Sessions({ sessions, onChanged }: { sessions: readonly Session[]; onChanged: () => void }) {
  const end = async (path: string) => {
    await remove(path);
    onChanged();
  };
  return (
    <>
      <table className="w-full text-sm">
        <thead>
          <tr className="quiet text-left">
            <th className="py-1 pr-4 font-normal">Browser</th>
            <th className="py-1 pr-4 font-normal max-md:hidden">Signed in</th>
            <th className="py-1 pr-4 font-normal">Last used</th>
            <th className="py-1" aria-label="Acts" />
          </tr>
        </thead>
        <tbody>
          {sessions.map(({ id, device, createdAt, usedAt, current }) => (
            <tr key={id} className="hairline border-t">
              <td className="py-2 pr-4">
                {device || "Unknown"} {current && <strong>· this one</strong>}
              </td>
              <td className="py-2 pr-4 max-md:hidden">{when.format(new Date(createdAt))}</td>
              <td className="py-2 pr-4">{when.format(new Date(usedAt))}</td>
              <td className="py-2 text-right">
                {!current && (
                  <button
                    type="button"
                    className="btn btn-ghost btn-sm"
                    onClick={() => void end(`/account/sessions/${id}`)}
                  >
                    End
                  </button>
                )}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {sessions.length > 1 && (
        <button type="button" className="btn btn-sm mt-2" onClick={() => void end("/account/sessions")}>
          End all others
        </button>
      )}
    </>
  );
}
