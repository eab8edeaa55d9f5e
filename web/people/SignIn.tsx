import { SignedIn } from "@unitext/server/api";
import { useState } from "react";
import { Navigate, useSearchParams } from "react-router";
import { useEntrance } from "../api/entrance";
import { post } from "../api/client";
import { EntranceFrame } from "./EntranceFrame";
import { NameField } from "./NameField";
import { PasswordField } from "./PasswordField";

/** Returns the page to go to after signing in: one of this service, whatever the address says. */
const pageIn = (to: string | null): string => (to && /^\/(?![/\\])/.test(to) ? to : "/");

/** Signs in by name and password, and by a code where the account has a second factor. */
export default function SignIn() {
  const { data } = useEntrance();
  const [asked] = useSearchParams();
  const to = pageIn(asked.get("to"));
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const [code, setCode] = useState<string>();
  const [problem, setProblem] = useState("");
  const [sending, setSending] = useState(false);
  if (data?.house === "setup") return <Navigate to="/setup" replace />;
  const send = async () => {
    setSending(true);
    setProblem("");
    try {
      const { me, needsCode } = await post("/sign-in", { name, password, ...(code ? { code } : {}) }, SignedIn);
      // The whole page is loaded again, so that nothing of another person stays in it.
      if (me) window.location.assign(to);
      else if (needsCode) setCode("");
    } catch (error) {
      setProblem((error as Error).message);
    }
    setSending(false);
  };
  return (
    <EntranceFrame title="Sign in">
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <NameField label="Name" value={name} onChange={setName} />
        <PasswordField label="Password" value={password} onChange={setPassword} />
        {code !== undefined && (
          <label className="mb-3 block text-sm">
            Code of the second factor
            <input
              required
              autoFocus
              inputMode="numeric"
              autoComplete="one-time-code"
              maxLength={10}
              className="input mt-1 w-full font-mono tracking-widest"
              value={code}
              onChange={({ target }) => setCode(target.value)}
            />
          </label>
        )}
        {problem && (
          <p role="alert" className="border-error mb-3 border-l-4 pl-2">
            {problem}
          </p>
        )}
        <button type="submit" className="btn btn-primary w-full" disabled={sending}>
          Sign in
        </button>
      </form>
      {data?.demo && (
        <p className="mt-4 text-sm">
          This is the demo: at this computer it opens without signing in.{" "}
          <a className="text-primary underline" href={to}>
            Go on as Course team
          </a>
        </p>
      )}
    </EntranceFrame>
  );
}
