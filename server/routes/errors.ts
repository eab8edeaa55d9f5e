import { Failure, type FailureCode } from "@unitext/core/model";
import type { ErrorRequestHandler } from "express";
import type { ErrorBody } from "../api";
import { isConnectionError, isDiskFull } from "../store";

const STATUS: Record<FailureCode, number> = {
  "not-found": 404,
  "not-readable": 422,
  "too-large": 413,
  "not-valid": 400,
  conflict: 409,
  "not-supported": 415,
  "not-permitted": 403,
  "sign-in-needed": 401,
  "too-many": 429,
  unavailable: 503,
  "no-space": 507,
};

/** The seconds after which to try again while the database is unreachable. */
const RETRY_AFTER = 2;

/** Answers a request that failed with a status, a code and a sentence for the person. */
export const onError: ErrorRequestHandler = (error, request, response, next) => {
  if (response.headersSent) {
    next(error);
    return;
  }
  const send = (status: number, code: string, where: string, message: string) =>
    response.status(status).json({ error: { code, where, message } } satisfies ErrorBody);
  if (error instanceof Failure) send(STATUS[error.code], error.code, error.where, error.message);
  else if (error?.type === "entity.too.large")
    send(
      413,
      "too-large",
      "body",
      `The file is larger than ${Math.round(error.limit / 1024 / 1024)} MB, the most that is taken at once.`,
    );
  else if (error?.status >= 400 && error.status < 500)
    send(error.status, "not-valid", "body", "The request could not be read: its body is not what its type says.");
  else if (isConnectionError(error)) {
    response.setHeader("retry-after", RETRY_AFTER);
    send(
      503,
      "unavailable",
      request.path,
      "The database cannot be reached for now. What you do is kept in your browser and saved as soon as it is back.",
    );
  } else if (isDiskFull(error))
    send(
      507,
      "no-space",
      request.path,
      "The disk of the service is full, so this could not be saved; reading goes on. What you do is kept in your browser and saved as soon as there is room.",
    );
  else {
    request.log?.error({ err: error }, "request failed");
    send(
      500,
      "failed",
      request.path,
      "Something went wrong on the server; nothing was changed. Try again, and if it stays so look at its log.",
    );
  }
};
