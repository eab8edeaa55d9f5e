// Builds fonts, server, command and client into dist. `--watch` builds server and command again whenever they change.
import { rmSync } from "node:fs";
import { join } from "node:path";
import { context } from "esbuild";
import { root } from "./prepare.mjs";

const watch = process.argv.includes("--watch");

/** Our own packages, and those that are installed inside of one of them, where others do not find them. */
const OURS = /^(@unitext\/|emf-converter$|lru-cache$)/;
/** Packages with binaries or data files, which are found only in their own folder. */
const INSTALLED = /^(@napi-rs\/|@resvg\/|harfbuzzjs|koffi|pdfkit|wink-)/;
/** A plugin that leaves packages outside a bundle. */
const outside = (isOutside) => ({
  name: "packages-outside",
  setup(build) {
    build.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind !== "entry-point" && isOutside(path) ? { path, external: true } : undefined,
    );
  },
});

const shared = {
  absWorkingDir: root,
  outdir: join(root, "dist"),
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  sourcemap: true,
  logLevel: "warning",
};
const bundles = [
  await context({
    ...shared,
    entryPoints: { "server/main": "server/main.ts", "server/demo": "demo/load.ts" },
    plugins: [outside((path) => !OURS.test(path))],
  }),
  // The command and the worker processes start often: hundreds of small files would take a second to find and load.
  await context({
    ...shared,
    entryPoints: { "server/worker": "server/work/process.ts", "cli/main": "cli/main.ts" },
    splitting: true,
    minifyWhitespace: true,
    chunkNames: "parts/[name]-[hash]",
    banner: {
      js: 'import { createRequire as requireOf } from "node:module"; const require = requireOf(import.meta.url);',
    },
    plugins: [outside((path) => INSTALLED.test(path))],
  }),
];
// Parts of earlier builds have other names.
rmSync(join(root, "dist/parts"), { recursive: true, force: true });
for (const bundle of bundles) await bundle.rebuild();
if (watch) for (const bundle of bundles) await bundle.watch();
else {
  for (const bundle of bundles) await bundle.dispose();
  await import("./fonts.mjs");
  const { build } = await import("vite");
  await build({ configFile: join(root, "web/vite.config.ts"), logLevel: "warn" });
}
