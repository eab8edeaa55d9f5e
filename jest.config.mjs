export default {
  testEnvironment: "node",
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      {
        jsc: {
          parser: { syntax: "typescript", tsx: true },
          target: "es2022",
          experimental: { keepImportAttributes: true },
          transform: { react: { runtime: "automatic" } },
        },
        module: { type: "es6" },
      },
    ],
  },
  testMatch: ["<rootDir>/{core,node,server,web,cli,demo,scripts}/**/*.test.{ts,tsx}"],
  watchPathIgnorePatterns: ["<rootDir>/dist"],
  modulePathIgnorePatterns: ["<rootDir>/dist"],
  // Jest leaves one core free by itself; of two, that is half.
  maxWorkers: "100%",
  // Modules are loaded anew for every file and never let go: a worker that has grown is replaced.
  workerIdleMemoryLimit: "1.2GB",
  testTimeout: 60000,
};
