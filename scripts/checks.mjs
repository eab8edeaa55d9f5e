// The checks that read the code without running it, each as a name, a program and its arguments.
import { join } from "node:path";
import { root } from "./prepare.mjs";

/** The path of a program that a package brings. */
export const bin = (name) => join(root, "node_modules/.bin", name);
/** Type checks run with the native compiler; the package `typescript` is there for the tools that need its API. */
const tsc = join(root, "node_modules/typescript-native/bin/tsc");

export const CHECKS = [
  ["Lint and format", bin("biome"), ["ci", "--error-on-warnings", "."]],
  [
    "Folder rule",
    bin("depcruise"),
    [
      "--config",
      ".dependency-cruiser.mjs",
      "--output-type",
      "err-long",
      ..."core node server web cli demo bench e2e".split(" "),
    ],
  ],
  ...["core", "server", "web", "tsconfig.tests.json"].map((part) => [
    `Types: ${part}`,
    process.execPath,
    [tsc, "-p", part],
  ]),
];

/** Arguments of Node.js that run Jest. */
export const JEST = [
  "--experimental-vm-modules",
  "--disable-warning=ExperimentalWarning",
  "node_modules/jest/bin/jest.js",
];
