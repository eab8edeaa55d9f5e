import { READABLE } from "@unitext/core/formats";
import { ACCEPTED_KINDS } from "./accepted";

it("the Desk offers every kind of file that can be read, and pages, which the server reads", () => {
  expect([...ACCEPTED_KINDS].sort()).toEqual([...READABLE, "pdf"].sort());
});
