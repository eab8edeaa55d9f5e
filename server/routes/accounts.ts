import { Failure } from "@unitext/core/model";
import express, { type Request, Router } from "express";
import { hashPassword, isPassword, newSecret, requireStrong, secretAddress, stepOfCode } from "../accounts";
import {
  type Account,
  CodeSent,
  Confirmed,
  type Entrance,
  type Me,
  NewAccount,
  NewPassword,
  PasswordChange,
  type People,
  type SecondFactor,
  SignIn,
  type SignedIn,
} from "../api";
import {
  acceptInvitation,
  accountLinkOf,
  accountNamed,
  accountOf,
  createFirstAccount,
  DEMO_USER,
  endSessionById,
  endSessions,
  hasAccounts,
  isToken,
  listPeople,
  listSessions,
  note,
  resetPassword,
  setPassword,
  setSecondFactor,
  spendCode,
  type StoredAccount,
} from "../store";
import { type AppContext, body, openRoute, route } from "./context";
import { isAtThisComputer } from "./origin";
import { signIn, tokenOf } from "./sessions";
import { visitorOf } from "./visitor";

/** How long a new second factor may take to be confirmed, in milliseconds. */
const CONFIRM_WITHIN = 10 * 60_000;

const meOf = ({ id, name, role }: StoredAccount): Me => ({ id, name, role, demo: id === DEMO_USER.id });
const addressOf = ({ ip = "" }: Request) => ip;

/** The same sentence for an unknown name and a wrong password, so that nobody learns which names there are. */
const WRONG = new Failure(
  "not-permitted",
  "sign-in",
  "The name or the password is not right. An owner of the house can make a link to set a new password.",
);

/** Returns the token of an account link's address, in a form that can be one. */
function linkToken(request: Request): string {
  const token = String(request.params.token);
  return isToken(token) ? token : "";
}

/** Checks the name, the password and the code of the second factor; wrong ones are counted. */
async function checkSignIn(context: AppContext, request: Request, asked: SignIn): Promise<SignedIn> {
  const { db, throttle, key } = context;
  const attempt = { name: asked.name, address: addressOf(request) };
  await throttle.count(attempt);
  const account = await accountNamed(db, asked.name);
  if (!(await isPassword(asked.password, account?.password)) || !account || account.closedAt !== null) {
    if (account) await note(db, { user: account.id, act: "sign-in-failed", detail: attempt.address });
    throw WRONG;
  }
  if (account.totp !== null) {
    if (!asked.code) {
      await throttle.forgive(attempt);
      return { me: null, needsCode: true };
    }
    const secret = key.decrypt(account.totp);
    if (secret === undefined)
      throw new Failure(
        "unavailable",
        "code",
        "The key of this house was replaced, so codes cannot be checked. An owner of the house can make a link to set a new password, which turns the second factor off.",
      );
    const step = stepOfCode(secret, asked.code, Date.now(), account.totpStep);
    if (step === undefined || !(await spendCode(db, account.id, step))) {
      await note(db, { user: account.id, act: "sign-in-failed", detail: attempt.address });
      throw new Failure("not-permitted", "code", "The code is not right, or was used already. Wait for the next one.");
    }
  }
  await throttle.forgive(attempt);
  return { me: meOf(account), needsCode: false };
}

/** Routes to come in: the first account, sign-in, invitations and new passwords. They need no session. */
export function entranceRoutes(context: AppContext): Router {
  const { db, demo, throttle, mail } = context;
  const routes = Router();
  const json = express.json({ limit: "10kb" });

  routes.get(
    "/entrance",
    openRoute(async ({ request, response }) => {
      response.json({
        me: visitorOf(response) ?? null,
        house: demo || (await hasAccounts(db)) ? "open" : "setup",
        demo: demo && isAtThisComputer(request),
      } satisfies Entrance);
    }),
  );

  routes.post(
    "/setup",
    json,
    openRoute(async ({ request, response }) => {
      const { name, password } = body(NewAccount, request);
      if (demo)
        throw new Failure("not-permitted", "house", "This is the demo; start without it to make a house of your own.");
      if (!isAtThisComputer(request))
        throw new Failure(
          "not-permitted",
          "address",
          "The owner's account is made at the computer on which Unitext runs. Open this page there.",
        );
      await requireStrong(password, name);
      const id = await createFirstAccount(db, name, await hashPassword(password));
      await note(db, { user: id, act: "account", detail: "owner" });
      const me: Me = { id, name, role: "owner", demo: false };
      await signIn(context, request, response, me);
      response.status(201).json({ me, needsCode: false } satisfies SignedIn);
    }),
  );

  routes.post(
    "/sign-in",
    json,
    openRoute(async ({ request, response }) => {
      const signed = await checkSignIn(context, request, body(SignIn, request));
      if (signed.me) {
        await signIn(context, request, response, signed.me);
        await note(db, { user: signed.me.id, act: "sign-in" });
      }
      response.json(signed);
    }),
  );

  routes.get(
    "/account-links/:token",
    openRoute(async ({ request, response }) => {
      const attempt = { address: addressOf(request) };
      await throttle.count(attempt);
      const link = await accountLinkOf(db, linkToken(request));
      await throttle.forgive(attempt);
      response.json(link);
    }),
  );

  routes.post(
    "/account-links/:token/account",
    json,
    openRoute(async ({ request, response }) => {
      const { name, password } = body(NewAccount, request);
      const attempt = { address: addressOf(request) };
      await throttle.count(attempt);
      await accountLinkOf(db, linkToken(request));
      await throttle.forgive(attempt);
      await requireStrong(password, name);
      const id = await acceptInvitation(db, linkToken(request), name, await hashPassword(password));
      const account = await accountOf(db, id);
      if (!account) throw new Failure("not-found", "account", "The account was removed meanwhile.");
      await note(db, { user: id, act: "account", detail: "by an invitation" });
      await signIn(context, request, response, meOf(account));
      response.status(201).json({ me: meOf(account), needsCode: false } satisfies SignedIn);
    }),
  );

  routes.put(
    "/account-links/:token/password",
    json,
    openRoute(async ({ request, response }) => {
      const { password } = body(NewPassword, request);
      const attempt = { address: addressOf(request) };
      await throttle.count(attempt);
      const { name } = await accountLinkOf(db, linkToken(request));
      await throttle.forgive(attempt);
      await requireStrong(password, name ?? "");
      const id = await resetPassword(db, linkToken(request), await hashPassword(password));
      await note(db, { user: id, act: "password", detail: "by a link" });
      mail.send({
        to: name ?? id,
        subject: "Your password was set",
        text: "The password of your account was set by a link that an owner of the house made. If that was not you, tell an owner.",
      });
      response.status(204).end();
    }),
  );

  return routes;
}

/** Routes of the signed-in person's own account: sessions, password, second factor. */
export function accountRoutes(context: AppContext): Router {
  const { db, key, mail, throttle } = context;
  const routes = Router();
  const json = express.json({ limit: "10kb" });
  /** Secrets of second factors that wait for their first code, by person. */
  const waiting = new Map<string, { secret: string; until: number }>();

  /** Returns the account of the person, once the password was right. Wrong ones are counted. */
  const confirmed = async (request: Request, { id }: Me, password: string): Promise<StoredAccount> => {
    const account = await accountOf(db, id);
    if (account?.password == null)
      throw new Failure(
        "not-supported",
        "account",
        "The user of the demo has no password; everybody at this computer is signed in.",
      );
    const attempt = { name: account.name, address: addressOf(request) };
    await throttle.count(attempt);
    if (!(await isPassword(password, account.password)))
      throw new Failure("not-permitted", "password", "This is not your password. Nothing was changed.");
    await throttle.forgive(attempt);
    return account;
  };
  const tell = ({ name }: StoredAccount, what: string) =>
    mail.send({ to: name, subject: what, text: `${what}. If that was not you, tell an owner of the house.` });

  routes.get(
    "/me",
    route(async ({ user, response }) => response.json(user)),
  );
  routes.get(
    "/people",
    route(async ({ user, response }) =>
      response.json({ people: user.role === "guest" ? [] : await listPeople(db) } satisfies People),
    ),
  );
  routes.get(
    "/account",
    route(async ({ user, request, response }) => {
      const account = await accountOf(db, user.id);
      response.json({
        me: user,
        secondFactor: account?.totp != null,
        sessions: await listSessions(db, user.id, tokenOf(request) ?? ""),
      } satisfies Account);
    }),
  );
  routes.put(
    "/account/password",
    json,
    route(async ({ user, request, response }) => {
      const { current, next } = body(PasswordChange, request);
      const account = await confirmed(request, user, current);
      await requireStrong(next, account.name);
      await setPassword(db, user.id, await hashPassword(next), tokenOf(request) ?? "");
      await note(db, { user: user.id, act: "password" });
      tell(account, "Your password was changed");
      response.status(204).end();
    }),
  );
  routes.delete(
    "/account/sessions",
    route(async ({ user, request, response }) => {
      await endSessions(db, user.id, tokenOf(request) ?? "");
      response.status(204).end();
    }),
  );
  routes.delete(
    "/account/sessions/:session",
    route(async ({ user, request, response }) => {
      await endSessionById(db, user.id, String(request.params.session).replaceAll("\0", ""));
      response.status(204).end();
    }),
  );
  routes.post(
    "/account/second-factor",
    json,
    route(async ({ user, request, response }) => {
      const { name } = await confirmed(request, user, body(Confirmed, request).password);
      const secret = newSecret();
      waiting.set(user.id, { secret, until: Date.now() + CONFIRM_WITHIN });
      response.json({ secret, address: secretAddress(secret, name) } satisfies SecondFactor);
    }),
  );
  routes.put(
    "/account/second-factor",
    json,
    route(async ({ user, request, response }) => {
      const { code } = body(CodeSent, request);
      const begun = waiting.get(user.id);
      if (!begun || begun.until < Date.now())
        throw new Failure("not-found", "second factor", "This took too long; begin again with your password.");
      const attempt = { name: user.name, address: addressOf(request) };
      await throttle.count(attempt);
      const step = stepOfCode(begun.secret, code, Date.now(), null);
      if (step === undefined)
        throw new Failure(
          "not-permitted",
          "code",
          "The code is not right. Check the clock of your phone and take the next one.",
        );
      await throttle.forgive(attempt);
      waiting.delete(user.id);
      await setSecondFactor(db, user.id, key.encrypt(begun.secret), step);
      await endSessions(db, user.id, tokenOf(request) ?? "");
      await note(db, { user: user.id, act: "second-factor", detail: "on" });
      const account = await accountOf(db, user.id);
      if (account) tell(account, "A second factor was turned on for your account");
      response.status(204).end();
    }),
  );
  routes.delete(
    "/account/second-factor",
    json,
    route(async ({ user, request, response }) => {
      const account = await confirmed(request, user, body(Confirmed, request).password);
      await setSecondFactor(db, user.id, null, null);
      await note(db, { user: user.id, act: "second-factor", detail: "off" });
      tell(account, "The second factor of your account was turned off");
      response.status(204).end();
    }),
  );
  return routes;
}
