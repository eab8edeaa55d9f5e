import { build } from "esbuild";
import { join } from "node:path";
import { root } from "./prepare.mjs";

/** Bundles programs of `bench` for Node.js into dist/bench; packages stay outside. */
export const bundled = (entryPoints) =>
  build({
    absWorkingDir: root,
    entryPoints,
    outdir: join(root, "dist/bench"),
    bundle: true,
    platform: "node",
    format: "esm",
    target: "node20",
    logLevel: "warning",
    plugins: [
      {
        name: "packages-outside",
        setup: (b) =>
          b.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
            kind === "entry-point" || path.startsWith("@unitext/") ? undefined : { path, external: true },
          ),
      },
    ],
  });
