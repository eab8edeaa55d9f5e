import { passwordStrength, passwordWeakness, PASSWORD } from "@unitext/server/api";
import { Eye, EyeOff } from "lucide-react";
import { useEffect, useId, useState } from "react";

const STRENGTH = ["very easily guessed", "easily guessed", "fair", "good", "very good"];

interface Props {
  label: string;
  value: string;
  onChange: (value: string) => void;
  /** A new password says how good it is, against the name of the person; a present one does not. */
  newFor?: string;
  autoFocus?: boolean;
}

/** A field for a password, which can be shown while it is typed. */
export function PasswordField({ label, value, onChange, newFor, autoFocus = false }: Props) {
  const [shown, setShown] = useState(false);
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="mb-1 block text-sm">
        {label}
      </label>
      <div className="join w-full">
        <input
          id={id}
          required
          autoFocus={autoFocus}
          type={shown ? "text" : "password"}
          autoComplete={newFor === undefined ? "current-password" : "new-password"}
          aria-describedby={newFor === undefined ? undefined : `${id}-strength`}
          className="input join-item w-full"
          value={value}
          onChange={({ target }) => onChange(target.value)}
        />
        <button
          type="button"
          className="btn join-item"
          aria-pressed={shown}
          aria-label={shown ? "Hide the password" : "Show the password"}
          title={shown ? "Hide the password" : "Show the password"}
          onClick={() => setShown(!shown)}
        >
          {shown ? <EyeOff size={16} aria-hidden="true" /> : <Eye size={16} aria-hidden="true" />}
        </button>
      </div>
      {newFor !== undefined && <Strength id={`${id}-strength`} password={value} name={newFor} />}
    </div>
  );
}

/** Says how good a password is while it is typed, and why it is not taken. */
function Strength({ id, password, name }: { id: string; password: string; name: string }) {
  const [found, setFound] = useState<{ score: number; weakness: string | undefined }>();
  useEffect(() => {
    let gone = false;
    if (!password) setFound(undefined);
    else
      void Promise.all([passwordStrength(password, name), passwordWeakness(password, name)]).then(
        ([{ score }, weakness]) => !gone && setFound({ score, weakness }),
      );
    return () => {
      gone = true;
    };
  }, [password, name]);
  return (
    <div id={id} className="mt-1 text-sm" aria-live="polite">
      {found && (
        <progress
          className={`progress h-1.5 w-full ${found.weakness ? "progress-error" : "progress-success"}`}
          max={4}
          value={Math.max(found.score, 0.3)}
          aria-label="How hard the password is to guess"
        />
      )}
      <p className="quiet">
        {found
          ? (found.weakness ?? `This password is ${STRENGTH[found.score]}.`)
          : `At least ${PASSWORD.least} characters; a short sentence is a good one.`}
      </p>
    </div>
  );
}
