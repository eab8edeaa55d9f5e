import { checked, Failure, Id } from "@unitext/core/model";
import express, { type Request, Router } from "express";
import { type House, InvitationAsked, type NewLink, PersonChange } from "../api";
import {
  accountOf,
  changeAccount,
  createAccountLink,
  DEMO_USER,
  listAccounts,
  listInvitations,
  note,
  removeAccountLink,
} from "../store";
import { type AppContext, body, type Call, route } from "./context";

const personOf = (request: Request): string => checked(Id, request.params.person, "The person");

/** Routes for the owners of a house: its people, invitations, and links to set a new password. */
export function houseRoutes({ db, mail }: AppContext): Router {
  const routes = Router();
  const json = express.json({ limit: "10kb" });
  const ownerRoute = (handle: (call: Call) => Promise<unknown>) =>
    route(async (call) => {
      if (call.user.role !== "owner")
        throw new Failure("not-permitted", "house", "Only an owner of this house may do this.");
      await handle(call);
    });

  routes.get(
    "/house",
    ownerRoute(async ({ response }) =>
      response.json({ people: await listAccounts(db), invitations: await listInvitations(db) } satisfies House),
    ),
  );
  routes.post(
    "/house/invitations",
    json,
    ownerRoute(async ({ user, request, response }) => {
      const { role, uses, days } = body(InvitationAsked, request);
      const { token, expiresAt } = await createAccountLink(db, { by: user.id, role, uses, hours: days * 24 });
      await note(db, { user: user.id, act: "account", detail: `invitation of ${uses} as ${role}` });
      response.status(201).json({ path: `/join/${token}`, expiresAt: expiresAt.toISOString() } satisfies NewLink);
    }),
  );
  routes.delete(
    "/house/invitations/:invitation",
    ownerRoute(async ({ request, response }) => {
      await removeAccountLink(db, checked(Id, request.params.invitation, "The invitation"));
      response.status(204).end();
    }),
  );
  routes.put(
    "/house/people/:person",
    json,
    ownerRoute(async ({ user, request, response }) => {
      const change = body(PersonChange, request);
      const id = personOf(request);
      await changeAccount(db, id, change);
      await note(db, { user: user.id, act: "account", detail: `${id} ${JSON.stringify(change)}` });
      response.status(204).end();
    }),
  );
  routes.post(
    "/house/people/:person/reset",
    ownerRoute(async ({ user, request, response }) => {
      const id = personOf(request);
      const account = await accountOf(db, id);
      if (!account || account.role === "guest" || id === DEMO_USER.id)
        throw new Failure("not-found", id, "There is nobody here whose password could be set.");
      const { token, expiresAt } = await createAccountLink(db, { by: user.id, user: id });
      const path = `/reset/${token}`;
      await note(db, { user: user.id, act: "password", detail: `link for ${id}` });
      mail.send({
        to: account.name,
        subject: "Set a new password",
        text: `An owner of the house has made a link by which you set a new password: ${path}\nIt holds until ${expiresAt.toISOString()}, and once.`,
      });
      response.status(201).json({ path, expiresAt: expiresAt.toISOString() } satisfies NewLink);
    }),
  );
  return routes;
}
