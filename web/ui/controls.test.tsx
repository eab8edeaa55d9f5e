/** @jest-environment jsdom */
import { cleanup, render, screen } from "@testing-library/react";
import userEvent from "@testing-library/user-event";
import { useState } from "react";
import { Choices } from "./Choices";
import { Dialog } from "./Dialog";
import { sheetRows, sheetTexts } from "./sheetrows";
import { SortableItem, SortableList } from "./SortableList";
import { useFileChooser } from "./useFileChooser";

function Example({ layout }: { layout?: "row" | "cards" }) {
  const [value, setValue] = useState<"a" | "b">("a");
  return (
    <Choices
      legend="Appearance"
      {...(layout ? { layout } : {})}
      value={value}
      onChange={setValue}
      options={[
        { value: "a", label: "Match", content: "as here" },
        { value: "b", label: "Keep", content: "as there" },
      ]}
    />
  );
}

function Chooser({ onFiles }: { onFiles: (files: readonly File[]) => void }) {
  const { input, choose } = useFileChooser({ label: "Files to bring in", accept: ".md", multiple: true, onFiles });
  return (
    <>
      <button type="button" onClick={choose}>
        Open
      </button>
      {input}
    </>
  );
}

// jsdom lacks opening and closing of dialogs, and CSS.escape.
beforeAll(() => {
  Object.assign(globalThis, { CSS: { escape: (name: string) => name.replace(/[^\w-]/g, "\\$&") } });
  HTMLDialogElement.prototype.showModal = function () {
    this.open = true;
  };
  HTMLDialogElement.prototype.close = function () {
    this.open = false;
    this.dispatchEvent(new Event("close"));
  };
});
afterEach(cleanup);

describe("a field for files", () => {
  it("gives the files that are chosen, the same ones again too, and nothing when none are", async () => {
    const given: string[][] = [];
    render(<Chooser onFiles={(files) => given.push(files.map(({ name }) => name))} />);
    const field = screen.getByLabelText<HTMLInputElement>("Files to bring in");
    const files = [new File(["a"], "a.md"), new File(["b"], "b.md")];
    await userEvent.upload(field, files);
    await userEvent.upload(field, files);
    await userEvent.upload(field, []);
    expect(given).toEqual([
      ["a.md", "b.md"],
      ["a.md", "b.md"],
    ]);
  });

  it("is opened by its button and is no stop of the Tab key", async () => {
    render(<Chooser onFiles={() => {}} />);
    const field = screen.getByLabelText<HTMLInputElement>("Files to bring in");
    let opened = 0;
    field.addEventListener("click", () => opened++);
    await userEvent.click(screen.getByRole("button", { name: "Open" }));
    expect([opened, field.tabIndex]).toEqual([1, -1]);
  });
});

describe("rows of a sheet", () => {
  it("have the texts that were put in, with empty rows to type in, and give them back", () => {
    const rows = sheetRows(
      [
        ["Gauge", "Metres"],
        ["Quay", "3.4"],
      ],
      2,
    );
    expect(rows).toHaveLength(4);
    expect(sheetTexts(rows, 3)).toEqual([
      ["Gauge", "Metres", ""],
      ["Quay", "3.4", ""],
      ["", "", ""],
      ["", "", ""],
    ]);
  });
});

describe("a dialog", () => {
  it("opens when it appears, and is named by its title", () => {
    render(<Dialog title="Move to" lead="Choose a place." onClose={() => {}} actions={() => null} />);
    expect(screen.getByRole<HTMLDialogElement>("dialog", { name: "Move to" }).open).toBe(true);
    expect(screen.getByText("Choose a place.")).toBeTruthy();
  });

  it("says once that it is closed, by its own button", async () => {
    let closed = 0;
    const cancel = (close: () => void) => (
      <button type="button" onClick={close}>
        Cancel
      </button>
    );
    render(<Dialog title="Move to" onClose={() => closed++} actions={cancel} />);
    await userEvent.click(screen.getByRole("button", { name: "Cancel" }));
    expect(closed).toBe(1);
  });

  it("is submitted by Enter, and then closed", async () => {
    const told: string[] = [];
    render(
      <Dialog
        title="Rename"
        onClose={() => told.push("closed")}
        onSubmit={() => told.push("submitted")}
        actions={() => <button type="submit">Rename</button>}
      >
        <input aria-label="Name" />
      </Dialog>,
    );
    await userEvent.type(screen.getByRole("textbox", { name: "Name" }), "Tides{Enter}");
    expect(told).toEqual(["submitted", "closed"]);
  });
});

describe("choices", () => {
  it("are a named group of which one is chosen", async () => {
    render(<Example />);
    expect(screen.getByRole("group", { name: "Appearance" })).toBeTruthy();
    await userEvent.click(screen.getByRole("radio", { name: /Keep/ }));
    expect(screen.getAllByRole<HTMLInputElement>("radio").map(({ checked }) => checked)).toEqual([false, true]);
  });

  it("are chosen by a press anywhere on their card, and by the arrow keys", async () => {
    render(<Example layout="cards" />);
    await userEvent.click(screen.getByText("as there"));
    expect(screen.getByRole<HTMLInputElement>("radio", { name: /Keep/ }).checked).toBe(true);
    await userEvent.keyboard("{ArrowUp}");
    expect(screen.getByRole<HTMLInputElement>("radio", { name: /Match/ }).checked).toBe(true);
  });

  it("of two groups do not exclude each other", async () => {
    render(
      <>
        <Example />
        <Example />
      </>,
    );
    await userEvent.click(screen.getAllByRole("radio", { name: /Keep/ })[0] as HTMLElement);
    expect(screen.getAllByRole<HTMLInputElement>("radio").map(({ checked }) => checked)).toEqual([
      false,
      true,
      true,
      false,
    ]);
  });
});

describe("a sortable list", () => {
  it("has a named handle for each item, and the items in order", () => {
    render(
      <SortableList ids={["a", "b"]} label="Decks in order" onMove={() => {}}>
        <SortableItem id="a" name="Tides">
          Tides
        </SortableItem>
        <SortableItem id="b" name="Dunes">
          Dunes
        </SortableItem>
      </SortableList>,
    );
    expect(screen.getAllByRole("listitem").map(({ textContent }) => textContent)).toEqual(["Tides", "Dunes"]);
    expect(screen.getByRole("list", { name: "Decks in order" })).toBeTruthy();
    expect(screen.getByRole("button", { name: "Move Dunes" })).toBeTruthy();
  });
});
