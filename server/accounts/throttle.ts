import { Failure } from "@unitext/core/model";
import type pg from "pg";
import { RateLimiterPostgres, RateLimiterRes } from "rate-limiter-flexible";

const MINUTE = 60;
const HOUR = 60 * MINUTE;

/**
 * How many wrong attempts are allowed, and in how many seconds. One account is tried at most 80 times an hour, below
 * the 100 of OWASP ASVS 4.0.3, 2.2.1, wherever the attempts come from; one computer cannot lock the others out.
 */
const RULES = {
  /** Passwords and codes for one name from one computer. */
  nameAndAddress: { points: 10, duration: 15 * MINUTE },
  /** Passwords and codes for one name. */
  name: { points: 80, duration: HOUR },
  /** Wrong passwords, pass phrases and links from one computer. */
  address: { points: 100, duration: 15 * MINUTE },
  /** Pass phrases for one link. */
  link: { points: 80, duration: HOUR },
} as const;
type Rule = keyof typeof RULES;

/** What is counted for an attempt. */
export interface Attempt {
  address: string;
  name?: string;
  link?: string;
}

/** Returns the counters of an attempt, the narrowest first: what one of them refuses is not counted by the next. */
function countersOf({ address, name, link }: Attempt): [Rule, string][] {
  const account = name?.normalize("NFKC").toLowerCase();
  return [
    ...(account === undefined ? [] : ([["nameAndAddress", `${account} ${address}`]] as [Rule, string][])),
    ["address", address],
    ...(account === undefined ? [] : ([["name", account]] as [Rule, string][])),
    ...(link === undefined ? [] : ([["link", link]] as [Rule, string][])),
  ];
}

/** Counts wrong attempts in the database, so that all servers count together. */
export class Throttle {
  private readonly limiters: Record<Rule, RateLimiterPostgres>;

  constructor(pool: pg.Pool) {
    const limiter = (rule: Rule) =>
      new RateLimiterPostgres({
        storeClient: pool,
        storeType: "pool",
        tableName: "rate_limits",
        tableCreated: true,
        keyPrefix: rule,
        clearExpiredByTimeout: false,
        // What is refused anyway is refused without asking the database.
        inMemoryBlockOnConsumed: RULES[rule].points + 1,
        ...RULES[rule],
      });
    this.limiters = {
      nameAndAddress: limiter("nameAndAddress"),
      name: limiter("name"),
      address: limiter("address"),
      link: limiter("link"),
    };
  }

  /** Counts an attempt before it is checked. Throws a Failure `too-many` that says when to try again. */
  async count(attempt: Attempt): Promise<void> {
    for (const [rule, key] of countersOf(attempt)) {
      try {
        await this.limiters[rule].consume(key);
      } catch (refused) {
        if (!(refused instanceof RateLimiterRes)) throw refused;
        const minutes = Math.max(1, Math.ceil(refused.msBeforeNext / 1000 / MINUTE));
        throw new Failure(
          "too-many",
          rule,
          `There were too many wrong attempts. Try again in ${minutes === 1 ? "a minute" : `${minutes} minutes`}.`,
        );
      }
    }
  }

  /** Takes back an attempt that was right, so that only wrong ones count. */
  async forgive(attempt: Attempt): Promise<void> {
    for (const [rule, key] of countersOf(attempt)) await this.limiters[rule].reward(key);
  }
}
