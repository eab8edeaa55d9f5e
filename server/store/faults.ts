/** Whether an error, or one of its causes, satisfies a test. */
function anyCause(error: unknown, test: (cause: Error & { code?: string }) => boolean): boolean {
  for (let cause = error; cause instanceof Error; cause = cause.cause)
    if (test(cause as Error & { code?: string })) return true;
  return false;
}

const SOCKET = new Set(["ECONNREFUSED", "ECONNRESET", "EPIPE", "ETIMEDOUT"]);

/**
 * Whether an error means that the database is unreachable: SQLSTATE classes 08 and 57P (PostgreSQL, appendix A), too
 * many connections (53300), and socket errors.
 */
export function isConnectionError(error: unknown): boolean {
  return anyCause(
    error,
    ({ code = "", message }) =>
      /^(08|57P|53300)/.test(code) ||
      SOCKET.has(code) ||
      /Connection terminated|not currently accepting connections|timeout exceeded when trying to connect|Client has encountered a connection error/.test(
        message,
      ),
  );
}

/** Whether an error means that a disk is full: SQLSTATE 53100 (disk_full), or the system's code. */
export function isDiskFull(error: unknown): boolean {
  return anyCause(
    error,
    ({ code, message }) => code === "53100" || code === "ENOSPC" || /No space left on device/.test(message),
  );
}
