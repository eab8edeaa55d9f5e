// Builds fonts, server, command and client into dist. `--watch` builds server and command again whenever they change.
import { join } from "node:path";
import { context } from "esbuild";
import { root } from "./prepare.mjs";

const watch = process.argv.includes("--watch");

/** Our own packages are bundled; others stay external, except one that is installed where only our own find it. */
const OURS = /^(@unitext\/|emf-converter$)/;
const packagesOutside = {
  name: "packages-outside",
  setup(build) {
    build.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === "entry-point" || OURS.test(path) ? undefined : { path, external: true },
    );
  },
};

const bundle = await context({
  absWorkingDir: root,
  entryPoints: {
    "server/main": "server/main.ts",
    "server/demo": "demo/load.ts",
    "server/worker": "server/work/process.ts",
    "cli/main": "cli/main.ts",
  },
  outdir: join(root, "dist"),
  bundle: true,
  platform: "node",
  format: "esm",
  target: "node20",
  sourcemap: true,
  logLevel: "warning",
  plugins: [packagesOutside],
});
await bundle.rebuild();
if (watch) await bundle.watch();
else {
  await bundle.dispose();
  await import("./fonts.mjs");
  const { build } = await import("vite");
  await build({ configFile: join(root, "web/vite.config.ts"), logLevel: "warn" });
}
