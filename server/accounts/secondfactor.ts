import { Secret, TOTP } from "otpauth";

/** The length of a time step in seconds (RFC 6238, section 5.2), and the digits of a code. */
const STEP = 30;
const DIGITS = 6;

/** Returns a new secret of 160 bits, the length that RFC 4226 recommends, in base 32. */
export const newSecret = (): string => new Secret({ size: 20 }).base32;

const generator = (secret: string, label = "", digits = DIGITS) =>
  new TOTP({ issuer: "Unitext", label, secret: Secret.fromBase32(secret), digits, period: STEP, algorithm: "SHA1" });

/** Returns the address that an app for codes reads from a QR code. */
export const secretAddress = (secret: string, name: string): string => generator(secret, name).toString();

/** Returns the code of a moment, in milliseconds since 1970. */
export const codeAt = (secret: string, at: number, digits = DIGITS): string =>
  generator(secret, "", digits).generate({ timestamp: at });

/**
 * Returns the time step of a code that is valid at a moment, one step early or late allowed for clocks that differ;
 * undefined for any other code, and for one of a step that was used before.
 */
export function stepOfCode(secret: string, code: string, at: number, usedStep: number | null): number | undefined {
  const delta = generator(secret).validate({ token: code.replace(/\s/g, ""), timestamp: at, window: 1 });
  if (delta === null) return undefined;
  const step = Math.floor(at / 1000 / STEP) + delta;
  return usedStep !== null && step <= usedStep ? undefined : step;
}
