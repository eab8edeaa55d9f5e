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
  testTimeout: 60000,
};
