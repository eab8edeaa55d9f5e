import { Id } from "@unitext/core/model";
import { z } from "zod";

/** The bounds of a password in characters (OWASP ASVS 4.0.3, 2.1.1 and 2.1.2): length, and no rule of kinds. */
export const PASSWORD = { least: 12, most: 128 } as const;
/** Guesses below which a password counts as easily guessed: what an attacker tries online in a year or so. */
const LEAST_GUESSES = 1e8;

const characters = (text: string) => [...text].length;

/** Returns how hard a password is to guess, from 0 to 4, and the number of guesses. */
export async function passwordStrength(password: string, name: string): Promise<{ score: number; guesses: number }> {
  const [{ ZxcvbnFactory }, { adjacencyGraphs, dictionary }] = await Promise.all([
    import("@zxcvbn-ts/core"),
    import("@zxcvbn-ts/language-common"),
  ]);
  const meter = new ZxcvbnFactory({ dictionary, graphs: adjacencyGraphs });
  const { score, guesses } = meter.check(password.slice(0, PASSWORD.most), [name, "unitext"]);
  return { score, guesses };
}

/** Returns why a password is not taken, in a sentence; undefined for a good one. */
export async function passwordWeakness(password: string, name: string): Promise<string | undefined> {
  const length = characters(password);
  if (length < PASSWORD.least)
    return `A password has at least ${PASSWORD.least} characters; this one has ${length}. A short sentence is a good one.`;
  if (length > PASSWORD.most) return `A password has at most ${PASSWORD.most} characters; this one has ${length}.`;
  const { guesses } = await passwordStrength(password, name);
  return guesses < LEAST_GUESSES
    ? "This password is easily guessed: it is common, repeats itself, or is like the name. Choose another one."
    : undefined;
}

export const Role = z.enum(["owner", "member", "guest"]);
export type Role = z.infer<typeof Role>;

/** The signed-in person. `demo` says that nobody signed in: everybody at this computer is this person. */
export const Me = z.object({ id: Id, name: z.string(), role: Role, demo: z.boolean() });
export type Me = z.infer<typeof Me>;

/** Who asks, and how this house may be entered. */
export const Entrance = z.object({
  me: Me.nullable(),
  /** “setup” while the owner's account is still to be made. */
  house: z.enum(["open", "setup"]),
  /** Whether this computer may enter the demo without signing in. */
  demo: z.boolean(),
});
export type Entrance = z.infer<typeof Entrance>;

export const PersonName = z
  .string()
  .trim()
  .min(1, "Say a name.")
  .max(100)
  .refine((name) => !/\p{Cc}/u.test(name), "A name has no control characters.");
/** Longer than any password that is taken, so that one that is too long gets the sentence about passwords. */
const Secret = z.string().max(1000);

export const SignIn = z.object({ name: PersonName, password: Secret, code: z.string().max(20).optional() });
export type SignIn = z.infer<typeof SignIn>;
/** The answer to a sign-in: done, or that the code of the second factor is still needed. */
export const SignedIn = z.object({ me: Me.nullable(), needsCode: z.boolean() });
export type SignedIn = z.infer<typeof SignedIn>;

export const NewAccount = z.object({ name: PersonName, password: Secret });
export type NewAccount = z.infer<typeof NewAccount>;
export const NewPassword = z.object({ password: Secret });
export const PasswordChange = z.object({ current: Secret, next: Secret });
export const Confirmed = z.object({ password: Secret });
export const CodeSent = z.object({ code: z.string().max(20) });

/** What an account link is for, before it is used. */
export const AccountLink = z.object({
  kind: z.enum(["invitation", "reset"]),
  /** Whose password a reset sets; null for an invitation. */
  name: z.string().nullable(),
  expiresAt: z.iso.datetime(),
});
export type AccountLink = z.infer<typeof AccountLink>;

export const Session = z.object({
  id: z.string(),
  device: z.string(),
  createdAt: z.iso.datetime(),
  usedAt: z.iso.datetime(),
  current: z.boolean(),
});
export type Session = z.infer<typeof Session>;
export const Account = z.object({ me: Me, secondFactor: z.boolean(), sessions: z.array(Session) });
export type Account = z.infer<typeof Account>;
/** The secret of a second factor that is not confirmed yet, and its address for a QR code. */
export const SecondFactor = z.object({ secret: z.string(), address: z.string() });
export type SecondFactor = z.infer<typeof SecondFactor>;

export const Person = z.object({
  id: Id,
  name: z.string(),
  role: z.enum(["owner", "member"]),
  secondFactor: z.boolean(),
  closed: z.boolean(),
  /** When a session of theirs was last used; null for never. */
  usedAt: z.iso.datetime().nullable(),
  decks: z.number().int(),
});
export type Person = z.infer<typeof Person>;
export const Invitation = z.object({
  id: Id,
  role: z.enum(["owner", "member"]),
  uses: z.number().int(),
  by: z.string(),
  expiresAt: z.iso.datetime(),
});
export type Invitation = z.infer<typeof Invitation>;
/** The people of a house, for its owners. */
export const House = z.object({ people: z.array(Person), invitations: z.array(Invitation) });
export type House = z.infer<typeof House>;
export const InvitationAsked = z.object({
  role: z.enum(["owner", "member"]),
  uses: z.number().int().min(1).max(500),
  days: z.number().int().min(1).max(90),
});
export const PersonChange = z.union([
  z.object({ role: z.enum(["owner", "member"]) }),
  z.object({ closed: z.boolean() }),
]);
export type PersonChange = z.infer<typeof PersonChange>;
/** A link that was made, shown once: the path of its page, with its token. */
export const NewLink = z.object({ path: z.string(), expiresAt: z.iso.datetime() });
export type NewLink = z.infer<typeof NewLink>;

/** The names of the people of the house, to share with and to mention. */
export const People = z.object({ people: z.array(z.object({ id: Id, name: z.string() })) });
export type People = z.infer<typeof People>;
