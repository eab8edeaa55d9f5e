import { hash, verify } from "@node-rs/argon2";
import { Failure } from "@unitext/core/model";
import { passwordWeakness } from "../api";

/**
 * The parameters of argon2id: the second recommended option of RFC 9106, section 4, for machines with less memory
 * (3 passes, 4 lanes, 64 MiB, salt of 128 bits, tag of 256 bits). The package makes the salt.
 */
export const ARGON2 = { timeCost: 3, parallelism: 4, memoryCost: 64 * 1024, outputLen: 32 } as const;

/** Passwords are compared in one Unicode form (NFKC), whichever keyboard typed them. */
const normalised = (password: string) => password.normalize("NFKC");

/** Returns the hash of a password or pass phrase, in the PHC string format. */
export const hashPassword = (password: string): Promise<string> => hash(normalised(password), ARGON2);

let decoy: Promise<string> | undefined;

/**
 * Whether a password is the one of a hash. Without a hash the answer is false and takes as long, so that nobody learns
 * by the time which names there are.
 */
export async function isPassword(password: string, stored: string | null | undefined): Promise<boolean> {
  decoy ??= hashPassword("a password that nobody has");
  const matches = await verify(stored ?? (await decoy), normalised(password));
  return matches && stored !== null && stored !== undefined;
}

/** Throws a Failure `not-valid` for a password that is too short, too long or easily guessed. */
export async function requireStrong(password: string, name: string): Promise<void> {
  const weakness = await passwordWeakness(password, name);
  if (weakness) throw new Failure("not-valid", "password", weakness);
}
