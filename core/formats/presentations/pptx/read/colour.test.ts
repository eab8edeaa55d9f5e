import { readXml } from "../../../shared/xml";
import { colourIn } from "./colour";

const named = new Map([
  ["accent1", "#4472c4"],
  ["tx1", "#101010"],
]);
const seen = (inner: string) =>
  colourIn(readXml(`<a:solidFill xmlns:a="a">${inner}</a:solidFill>`, "x"), {
    named,
    placeholder: { colour: "#ff0000" },
  });
const green = (change: string) => seen(`<a:srgbClr val="00FF00">${change}</a:srgbClr>`)?.colour;

describe("colours of DrawingML", () => {
  // The examples of ECMA-376-1, 20.1.2.3: 50 % of shade and of tint of pure green, in linear light.
  it("are shaded and tinted in light", () => {
    expect(green('<a:shade val="50000"/>')).toBe("#00bc00");
    expect(green('<a:tint val="50000"/>')).toBe("#bcffbc");
  });

  // Worked by hand in HSL: green has a lightness of one half.
  it("have their lightness, hue and saturation changed", () => {
    expect(green('<a:lumMod val="50000"/>')).toBe("#008000");
    expect(green('<a:lumMod val="50000"/><a:lumOff val="50000"/>')).toBe("#80ff80");
    expect(green('<a:satMod val="0"/>')).toBe("#808080");
    expect(green('<a:hueOff val="7200000"/>')).toBe("#0000ff");
    expect(green("<a:inv/>")).toBe("#ff00ff");
    expect(green("<a:gray/>")?.slice(1, 3)).toBe(green("<a:gray/>")?.slice(3, 5));
  });

  it("come by name, from the theme, as shares, and with opacity", () => {
    expect(seen('<a:schemeClr val="accent1"/>')?.colour).toBe("#4472c4");
    expect(seen('<a:schemeClr val="phClr"/>')?.colour).toBe("#ff0000");
    expect(seen('<a:prstClr val="navy"/>')?.colour).toBe("#000080");
    expect(seen('<a:scrgbClr r="100000" g="0" b="0"/>')?.colour).toBe("#ff0000");
    expect(seen('<a:hslClr hue="7200000" sat="100000" lum="50000"/>')?.colour).toBe("#00ff00");
    expect(seen('<a:sysClr val="windowText" lastClr="010203"/>')?.colour).toBe("#010203");
    expect(seen('<a:srgbClr val="123456"><a:alpha val="40000"/></a:srgbClr>')).toEqual({
      colour: "#123456",
      opacity: 0.4,
    });
    expect(seen('<a:srgbClr val="no"/>')).toBeUndefined();
  });
});
