import { SecondFactor as Begun } from "@unitext/server/api";
import { useState } from "react";
import { post, put, remove } from "../api/client";
import { CopyField } from "../ui/CopyField";
import { QrCode } from "../ui/QrCode";
import { PasswordField } from "./PasswordField";

/** Turns the second factor on, by a code of an app on a phone, or off; both ask for the password. */
export function SecondFactor({ on, onChanged }: { on: boolean; onChanged: () => void }) {
  const [password, setPassword] = useState("");
  const [begun, setBegun] = useState<Begun>();
  const [code, setCode] = useState("");
  const [problem, setProblem] = useState("");
  const run = async (act: () => Promise<void>) => {
    setProblem("");
    try {
      await act();
    } catch (error) {
      setProblem((error as Error).message);
    }
  };
  const begin = () =>
    run(async () => {
      if (on) {
        await remove("/account/second-factor", { password });
        onChanged();
      } else setBegun(await post("/account/second-factor", { password }, Begun));
      setPassword("");
    });
  const confirm = () =>
    run(async () => {
      await put("/account/second-factor", { code });
      setBegun(undefined);
      setCode("");
      onChanged();
    });
  const wrong = problem && (
    <p role="alert" className="border-error mb-2 border-l-4 pl-2">
      {problem}
    </p>
  );
  if (begun)
    return (
      <form
        className="flex flex-wrap gap-4"
        onSubmit={(event) => {
          event.preventDefault();
          void confirm();
        }}
      >
        <QrCode value={begun.address} label="QR code for an app that makes codes" />
        <div className="min-w-0 max-w-md flex-1">
          <p className="mb-2 text-sm">
            Point an app for one-time codes at this picture, or type the secret into it. Then type the code that it
            shows.
          </p>
          <CopyField label="Secret" value={begun.secret} />
          <label className="my-3 block text-sm">
            Code
            <input
              required
              inputMode="numeric"
              autoComplete="one-time-code"
              maxLength={10}
              className="input mt-1 w-full font-mono tracking-widest"
              value={code}
              onChange={({ target }) => setCode(target.value)}
            />
          </label>
          {wrong}
          <button type="submit" className="btn btn-primary mr-2">
            Turn it on
          </button>
          <button type="button" className="btn btn-ghost" onClick={() => setBegun(undefined)}>
            Cancel
          </button>
        </div>
      </form>
    );
  return (
    <form
      className="max-w-md"
      onSubmit={(event) => {
        event.preventDefault();
        void begin();
      }}
    >
      <p className="mb-3 text-sm">
        {on
          ? "It is on: signing in asks for a code of your app. If you lose the phone, an owner of the house can make a link by which you set a new password, which turns it off."
          : "It is off. With it, signing in also asks for a code of an app on your phone, so that a stolen password is not enough."}
      </p>
      <PasswordField label="Your password" value={password} onChange={setPassword} />
      {wrong}
      <button type="submit" className="btn">
        {on ? "Turn it off" : "Set it up"}
      </button>
    </form>
  );
}
