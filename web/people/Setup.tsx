import { SignedIn } from "@unitext/server/api";
import { Navigate } from "react-router";
import { post } from "../api/client";
import { useEntrance } from "../api/entrance";
import { AccountForm } from "./AccountForm";
import { EntranceFrame } from "./EntranceFrame";

/** The first start: makes the account of the owner. */
export default function Setup() {
  const { data } = useEntrance();
  if (data?.house === "open") return <Navigate to="/sign-in" replace />;
  return (
    <EntranceFrame
      title="Set up this house"
      lead="Nobody has an account here yet. Whoever makes the first one owns the house: the owner invites the others and helps them when they forget their password."
    >
      <AccountForm
        act="Make the owner’s account"
        onSend={async (name, password) => {
          await post("/setup", { name, password }, SignedIn);
          window.location.assign("/");
        }}
      />
    </EntranceFrame>
  );
}
