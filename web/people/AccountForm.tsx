import { type ReactNode, useState } from "react";
import { NameField } from "./NameField";
import { PasswordField } from "./PasswordField";

interface Props {
  /** What the button says. */
  act: string;
  /** A name that is given already; without it the name is asked for. */
  name?: string;
  /** Sends name and password. Throws with a sentence for the person. */
  onSend: (name: string, password: string) => Promise<void>;
  children?: ReactNode;
}

/** A form for a name and a new password. */
export function AccountForm({ act, name: given, onSend, children }: Props) {
  const [name, setName] = useState(given ?? "");
  const [password, setPassword] = useState("");
  const [problem, setProblem] = useState("");
  const [sending, setSending] = useState(false);
  const send = async () => {
    setSending(true);
    setProblem("");
    try {
      await onSend(name.trim(), password);
    } catch (error) {
      setProblem((error as Error).message);
    }
    setSending(false);
  };
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      {given === undefined && <NameField label="Name, as others will see it" value={name} onChange={setName} />}
      <PasswordField
        label="Password"
        value={password}
        newFor={name}
        onChange={setPassword}
        autoFocus={given !== undefined}
      />
      {problem && (
        <p role="alert" className="border-error mb-3 border-l-4 pl-2">
          {problem}
        </p>
      )}
      {children}
      <button type="submit" className="btn btn-primary w-full" disabled={sending}>
        {act}
      </button>
    </form>
  );
}
