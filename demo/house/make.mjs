// Writes the demo's presentations in the station's house style: node demo/house/make.mjs puts them into demo/content,
// after a build. All data are made up.
import { rmSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath, pathToFileURL } from "node:url";
import { build } from "esbuild";

const folder = dirname(fileURLToPath(import.meta.url));
const root = join(folder, "../..");
const bundle = join(root, "dist/house.mjs");
const contents = `export { houseFiles } from "./index"; export { fontsIn, svgPng } from "../../node";`;
const packagesOutside = {
  name: "packages-outside",
  setup: (made) =>
    made.onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
      kind === "entry-point" || path.startsWith("@unitext/") ? undefined : { path, external: true },
    ),
};
await build({
  stdin: { contents, resolveDir: folder, loader: "ts" },
  bundle: true,
  platform: "node",
  format: "esm",
  outfile: bundle,
  plugins: [packagesOutside],
  logLevel: "error",
});
const { houseFiles, fontsIn, svgPng } = await import(pathToFileURL(bundle).href);
for (const { name, bytes } of await houseFiles(
  join(root, "demo/content/pictures"),
  fontsIn(join(root, "dist/fonts")),
  svgPng(join(root, "dist/fonts")),
))
  writeFileSync(join(root, "demo/content", name), bytes);
rmSync(bundle);
