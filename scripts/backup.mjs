// npm run backup FILE: writes all decks with their history, pictures and users into one file, also while Unitext runs.
// npm run restore FILE: brings such a file into an empty data folder (`--replace` takes the place of what is there).
import { existsSync, mkdirSync, renameSync, rmSync, statSync } from "node:fs";
import { resolve } from "node:path";
import { dataFolder, startPostgres } from "./postgres.mjs";
import { fail, systemPackages } from "./prepare.mjs";
import { hold, holderOf } from "./supervise.mjs";

const restoring = process.argv.includes("--restore");
const replacing = process.argv.includes("--replace");
const file = process.argv.slice(2).find((argument) => !argument.startsWith("--"));
if (!file) fail(`say the file: npm run ${restoring ? "restore" : "backup"} FILE`);
const path = resolve(process.env.INIT_CWD ?? process.cwd(), file);
systemPackages(["postgresql"]);
const data = dataFolder();
const said = ({ status, stderr }, what) => {
  if (status !== 0) fail(`${what} failed: ${(stderr ?? "").trim()}`);
};

if (restoring) {
  if (!existsSync(path)) fail(`there is no file ${path}.`);
  mkdirSync(data, { recursive: true });
  const lock = hold(data);
  if (!lock)
    fail(`Unitext runs on ${data} (process ${holderOf(data)?.pid}); stop it, or name another folder in UNITEXT_DATA.`);
  const database = await startPostgres(data);
  try {
    const { stdout } = database.tool("psql", [
      "-d",
      "unitext",
      "-tAc",
      "select coalesce((select count(*) from decks), 0) where to_regclass('decks') is not null",
    ]);
    if (Number(stdout?.trim() || 0) > 0 && !replacing)
      fail(`${data} holds ${stdout.trim()} decks already. Name an empty folder in UNITEXT_DATA, or say --replace.`);
    // All or nothing: a damaged file leaves everything as it was.
    said(
      database.tool("pg_restore", [
        "-d",
        "unitext",
        "--clean",
        "--if-exists",
        "--no-owner",
        "--no-privileges",
        "--single-transaction",
        "--exit-on-error",
        path,
      ]),
      "Restoring",
    );
    said(
      database.tool("psql", [
        "-d",
        "unitext",
        "-v",
        "ON_ERROR_STOP=1",
        "-c",
        "insert into audit (user_id, act, detail) values ('operator', 'restore', 'from a backup')",
      ]),
      "Noting the restore",
    );
    const count = database.tool("psql", ["-d", "unitext", "-tAc", "select count(*) from decks"]).stdout.trim();
    process.stdout.write(`Restored ${count} decks into ${data}.\n`);
  } finally {
    if (database.ours) database.stop();
    lock.release();
  }
} else {
  if (!existsSync(data)) fail(`there are no data in ${data}.`);
  const database = await startPostgres(data);
  const partial = `${path}.${process.pid}.part`;
  try {
    // All of it is of one moment: later edits are in the next backup.
    said(
      database.tool("pg_dump", [
        "-d",
        "unitext",
        "--format=custom",
        "--no-owner",
        "--no-privileges",
        "--file",
        partial,
      ]),
      "The backup",
    );
    renameSync(partial, path);
    process.stdout.write(`Wrote ${path} (${Math.ceil(statSync(path).size / 1024 / 1024)} MB).\n`);
  } finally {
    rmSync(partial, { force: true });
    if (database.ours) database.stop();
  }
}
