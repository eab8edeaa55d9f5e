export default {
  testEnvironment: "node",
  extensionsToTreatAsEsm: [".ts", ".tsx"],
  transform: {
    "^.+\\.tsx?$": [
      "@swc/jest",
      { jsc: { parser: { syntax: "typescript", tsx: true }, target: "es2022" }, module: { type: "es6" } },
    ],
  },
  testMatch: ["<rootDir>/{core,server,web,cli,demo,scripts}/**/*.test.ts"],
  watchPathIgnorePatterns: ["<rootDir>/dist"],
  modulePathIgnorePatterns: ["<rootDir>/dist"],
  testTimeout: 60000,
};
