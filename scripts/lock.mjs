// Completes package-lock.json with the optional packages of other systems that a registry mirror left out, so that
// `npm ci` accepts the lock everywhere. Run it after `npm install` has written the lock.
import { readFileSync, writeFileSync } from "node:fs";

const lock = JSON.parse(readFileSync("package-lock.json", "utf8"));
const OS = {
  android: "android",
  darwin: "darwin",
  freebsd: "freebsd",
  netbsd: "netbsd",
  openbsd: "openbsd",
  linux: "linux",
  linuxmusl: "linux",
  win32: "win32",
  sunos: "sunos",
  aix: "aix",
  openharmony: "openharmony",
  gnueabihf: "linux",
  musleabihf: "linux",
};
const CPU = {
  arm64: "arm64",
  x64: "x64",
  ia32: "ia32",
  arm: "arm",
  ppc64: "ppc64",
  riscv64: "riscv64",
  s390x: "s390x",
  loong64: "loong64",
  mips64el: "mips64el",
  wasm32: "wasm32",
};
for (const [path, entry] of Object.entries(lock.packages)) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    const nested = `${path}/node_modules/${name}`;
    if (lock.packages[`node_modules/${name}`] || lock.packages[nested] || !/^\d/.test(version)) continue;
    const words = name.split("/").pop().split("-");
    const os = words.map((word) => OS[word]).find(Boolean);
    const cpu = words.map((word) => CPU[word]).find(Boolean);
    lock.packages[`node_modules/${name}`] = {
      version,
      ...(cpu ? { cpu: [cpu] } : {}),
      optional: true,
      ...(os ? { os: [os] } : {}),
    };
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync("package-lock.json", `${JSON.stringify(lock, null, 2)}\n`);
