// The folder rule: a room imports only the rooms listed for it, rooms of core through their doors, and without cycles.

const CORE = ["core"];
const MODEL = ["core/model"];
const FORMATS = "core/formats";
const SHARED = [...MODEL, `${FORMATS}/shared`];

/** What each room may import besides itself. A room inside another has a line of its own, which alone counts for it. */
const ROOMS = {
  "core/model": [],
  "core/tally": MODEL,
  "core/text": MODEL,
  "core/edit": MODEL,
  "core/figures": MODEL,
  "core/diff": [...MODEL, "core/text", "core/edit"],
  "core/layout": [...MODEL, "core/figures"],
  "core/draw": [...MODEL, "core/figures", "core/layout"],
  "core/generate": [...MODEL, "core/text", "core/edit", "core/diff", "core/layout"],
  "core/divide": [...MODEL, "core/text", "core/edit", "core/diff", "core/tally"],
  "core/advice": [...MODEL, "core/edit", "core/layout"],
  "core/translate": [...MODEL, "core/edit", `${FORMATS}/shared/(xml|document)`],
  "core/film": [...MODEL, "core/translate"],
  "core/data": [...MODEL, `${FORMATS}/shared/(archive|xml|document)`],
  [`${FORMATS}/shared/archive`]: MODEL,
  [`${FORMATS}/shared/xml`]: MODEL,
  [`${FORMATS}/shared/math`]: [...MODEL, `${FORMATS}/shared/xml`],
  [`${FORMATS}/shared/pictures`]: [...SHARED, "core/draw", "core/layout", "core/tally"],
  [`${FORMATS}/shared/document`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/shared/sourcepackage`]: [...SHARED, "core/figures", "core/layout", "core/tally", "core/edit"],
  [`${FORMATS}/shared/features`]: [...SHARED, "core/text"],
  [`${FORMATS}/documents/csv`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/documents/docx`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/documents/html`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/documents/odt`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/documents/opml`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/documents/plain`]: [...SHARED, "core/text", "core/tally"],
  [`${FORMATS}/documents/pasted`]: [...SHARED, `${FORMATS}/documents/(csv|html|plain)`, "core/text", "core/tally"],
  [`${FORMATS}/documents`]: [...SHARED, "core/text", "core/tally", "core/layout", "core/generate"],
  [`${FORMATS}/presentations/shared`]: [...SHARED, "core/layout", "core/tally"],
  [`${FORMATS}/presentations/pptx`]: [
    ...SHARED,
    `${FORMATS}/presentations/shared`,
    "core/text",
    "core/figures",
    "core/layout",
    "core/tally",
  ],
  [`${FORMATS}/presentations/odp`]: [
    ...SHARED,
    `${FORMATS}/presentations/shared`,
    "core/text",
    "core/figures",
    "core/layout",
    "core/tally",
  ],
  [`${FORMATS}/presentations/markdown`]: [...SHARED, "core/text"],
  [`${FORMATS}/presentations/json`]: [...SHARED, "core/tally"],
  [`${FORMATS}/output`]: [...SHARED, "core/draw", "core/figures", "core/layout", "core/tally"],
  [FORMATS]: CORE,
  "core/testing": CORE,

  node: CORE,
  "server/access": MODEL,
  "server/api": [...CORE, "server/access"],
  "server/accounts": [...MODEL, "server/api"],
  "server/store": [...CORE, "server/api", "server/access"],
  "server/work": [...CORE, "node", "server/api"],
  "server/jobs": [...CORE, "node", "server/api", "server/access", "server/store", "server/work"],
  "server/routes": [
    ...CORE,
    "server/api",
    "server/access",
    "server/accounts",
    "server/store",
    "server/work",
    "server/jobs",
  ],
  server: [...CORE, "node"],

  "web/ui": [...CORE, "server/api"],
  "web/api": [...CORE, "server/api"],
  "web/keys": [...MODEL, "web/ui"],
  "web/worker": CORE,
  "web/jobs": [...CORE, "server/api", "web/ui", "web/api"],
  "web/deck": [...CORE, "server/api", "web/ui", "web/api", "web/worker", "web/jobs"],
  "web/sources": [...CORE, "server/api", "web/ui", "web/api", "web/deck"],
  "web/richtext": [...CORE, "web/ui", "web/deck", "web/sources"],
  "web/design": [...CORE, "server/api", "web/ui", "web/api", "web/deck"],
  "web/insert": [
    ...CORE,
    "server/api",
    "web/ui",
    "web/api",
    "web/keys",
    "web/worker",
    "web/jobs",
    "web/deck",
    "web/sources",
  ],
  "web/comments": [...CORE, "server/api", "web/ui", "web/api", "web/deck"],
  "web/sharing": ["server/(api|access)", "web/ui", "web/api"],
  "web/shell": [
    ...CORE,
    "server/api",
    "web/ui",
    "web/api",
    "web/keys",
    "web/deck",
    "web/design",
    "web/comments",
    "web/sharing",
  ],
  "web/collect": [...CORE, "server/api", "web/ui", "web/api", "web/jobs", "web/deck", "web/people"],
  "web/view": [...MODEL, "server/api", "web/ui", "web/api", "web/comments"],
  "web/gather": [
    ...CORE,
    "server/api",
    "web/ui",
    "web/api",
    "web/keys",
    "web/jobs",
    "web/deck",
    "web/shell",
    "web/worker",
  ],
  web: [
    ...CORE,
    "server/api",
    "web/ui",
    "web/api",
    "web/keys",
    "web/worker",
    "web/jobs",
    "web/deck",
    "web/sources",
    "web/richtext",
    "web/insert",
    "web/shell",
    "web/design",
    "web/comments",
    "web/sharing",
  ],
  "web/arrange": [...CORE, "server/api", "web/(?!desk|write|refine|data|speak|deliver|versions)[a-z]+"],
  cli: [...CORE, "node"],
  demo: [...CORE, "node", "server/(api|store|accounts|work|jobs)"],
  bench: [...CORE, "node", "server", "web"],
  e2e: [...CORE, "demo"],
};

/** Tests, and what is written for them alone. */
const TESTS = "\\.(test|spec)\\.tsx?$|^core/testing/|^server/testing\\.ts$";
/** Everything that is ours. */
const OURS = "^(core|node|server|web|cli|demo|bench|e2e)/";

const inside = (room) => `${room}/`;
const rules = Object.entries(ROOMS).map(([room, allowed]) => {
  const deeper = Object.keys(ROOMS).filter((other) => other.startsWith(inside(room)));
  return {
    name: `room:${room}`,
    comment: `${room} may import ${allowed.join(", ") || "no other room"}`,
    severity: "error",
    from: { path: `^${inside(room)}`, pathNot: [TESTS, ...deeper.map((other) => `^${inside(other)}`)] },
    to: { path: OURS, pathNot: [`^${inside(room)}`, ...allowed.map((other) => `^${inside(other)}`)] },
  };
});

export default {
  forbidden: [
    ...rules,
    { name: "no-cycles", severity: "error", from: {}, to: { circular: true } },
    {
      name: "through-the-door",
      comment: "A room of core is imported through its index.ts",
      severity: "error",
      from: { path: "^core/([a-z]+)/" },
      to: {
        path: "^core/([a-z]+)/",
        pathNot: ["^core/$1/", "^core/[a-z]+/index\\.ts$", `^${FORMATS}/`, "^core/testing/", "\\.json$"],
      },
    },
    {
      name: "tests-only",
      comment: "Only tests and benchmarks import core/testing",
      severity: "error",
      from: { pathNot: [TESTS, "^(bench|e2e)/"] },
      to: { path: "^core/testing/" },
    },
  ],
  options: {
    parser: "tsc",
    tsPreCompilationDeps: true,
    doNotFollow: { path: "node_modules" },
    exclude: { path: "(^|/)(node_modules|dist|migrations)/" },
    enhancedResolveOptions: {
      exportsFields: ["exports"],
      conditionNames: ["import", "require", "default"],
      extensions: [".ts", ".tsx", ".d.ts", ".mts", ".mjs", ".js", ".json"],
    },
  },
};
