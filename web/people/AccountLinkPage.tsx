import { AccountLink, SignedIn } from "@unitext/server/api";
import { useState } from "react";
import { useParams } from "react-router";
import useSWR from "swr";
import { get, post, put } from "../api/client";
import { AccountForm } from "./AccountForm";
import { EntranceFrame } from "./EntranceFrame";

/** What a link of an owner of the house is for: an account, or a new password. */
export default function AccountLinkPage() {
  const { token = "" } = useParams();
  const path = `/account-links/${token}`;
  const { data, error } = useSWR(path, () => get(path, AccountLink), {
    revalidateOnFocus: false,
    shouldRetryOnError: false,
  });
  const [isSet, setIsSet] = useState(false);
  if (error)
    return (
      <EntranceFrame title="This link leads nowhere">
        <p role="alert" className="mb-4">
          {(error as Error).message}
        </p>
        <a className="btn" href="/sign-in">
          Sign in
        </a>
      </EntranceFrame>
    );
  if (!data) return <EntranceFrame title="One moment …">{null}</EntranceFrame>;
  if (isSet)
    return (
      <EntranceFrame title="The password is set">
        <p className="mb-4">All sessions have ended, and the second factor, if there was one, is off.</p>
        <a className="btn btn-primary" href="/sign-in">
          Sign in
        </a>
      </EntranceFrame>
    );
  if (data.kind === "reset")
    return (
      <EntranceFrame
        title="A new password"
        lead={`For ${data.name}. It ends all sessions and turns a second factor off.`}
      >
        <AccountForm
          act="Set the password"
          name={data.name ?? ""}
          onSend={async (_, password) => {
            await put(`${path}/password`, { password });
            setIsSet(true);
          }}
        />
      </EntranceFrame>
    );
  return (
    <EntranceFrame
      title="Join this house"
      lead="With an account you have a Desk of your own, and others can share decks with you."
    >
      <AccountForm
        act="Make my account"
        onSend={async (name, password) => {
          await post(`${path}/account`, { name, password }, SignedIn);
          window.location.assign("/");
        }}
      />
    </EntranceFrame>
  );
}
