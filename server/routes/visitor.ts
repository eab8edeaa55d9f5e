import { Failure } from "@unitext/core/model";
import type { Response } from "express";
import type { Me } from "../api";

/** Returns the person of a request, whom the session's middleware found; undefined for a stranger. */
export const visitorOf = (response: Response): Me | undefined => (response.locals as { user?: Me }).user;

/** Returns the person of a request. Throws a Failure `sign-in-needed` for a stranger. */
export function userFrom(response: Response): Me {
  const user = visitorOf(response);
  if (!user) throw new Failure("sign-in-needed", "session", "Sign in to go on. Nothing that you have done is lost.");
  return user;
}
