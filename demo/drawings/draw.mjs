// Draws the demo's pictures: node demo/drawings/draw.mjs writes them to demo/content/pictures. All data are made up.
import { mkdirSync, writeFileSync } from "node:fs";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import { Resvg } from "@resvg/resvg-js";

const out = join(dirname(fileURLToPath(import.meta.url)), "../content/pictures");
const W = 1600;
const H = 760;
const svg = (body) =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${W}" height="${H}" viewBox="0 0 ${W} ${H}"><rect width="${W}" height="${H}" fill="#fbf9f4"/>${body}</svg>`;

/** Fourteen days of water level from two semidiurnal constituents, whose beat makes springs and neaps. */
function tides() {
  const points = [];
  for (let hour = 0; hour <= 14 * 24; hour += 0.5) {
    const level =
      2.6 + 1.55 * Math.cos((2 * Math.PI * hour) / 12.42) + 0.7 * Math.cos((2 * Math.PI * (hour - 168)) / 12);
    points.push([60 + (hour / (14 * 24)) * (W - 120), H - 60 - (level / 5.2) * (H - 120)]);
  }
  const line = points.map(([x, y], index) => `${index ? "L" : "M"}${x.toFixed(1)} ${y.toFixed(1)}`).join("");
  const days = Array.from({ length: 15 }, (_, day) => 60 + (day / 14) * (W - 120));
  const grid = days
    .map((x) => `<line x1="${x}" y1="60" x2="${x}" y2="${H - 60}" stroke="#d9d4c6" stroke-width="2"/>`)
    .join("");
  const levels = [0, 1, 2, 3, 4, 5].map((m) => H - 60 - (m / 5.2) * (H - 120));
  const rows = levels
    .map((y) => `<line x1="60" y1="${y}" x2="${W - 60}" y2="${y}" stroke="#e6e1d5" stroke-width="2"/>`)
    .join("");
  const flood = H - 60 - (4.7 / 5.2) * (H - 120);
  return svg(
    `${rows}${grid}<line x1="60" y1="${flood}" x2="${W - 60}" y2="${flood}" stroke="#b23a30" stroke-width="4" stroke-dasharray="14 10"/><path d="${line}L${W - 60} ${H - 60}L60 ${H - 60}Z" fill="#0f5c63" fill-opacity="0.14"/><path d="${line}" fill="none" stroke="#0f5c63" stroke-width="6" stroke-linejoin="round"/>`,
  );
}

/** A profile from the sea to the dune slack, with marram grass on the foredune. */
function dune() {
  const ground =
    "M0 560 C200 552 420 530 560 500 C640 480 690 450 740 330 C780 240 850 210 910 260 C980 330 1010 420 1090 450 C1180 480 1230 460 1300 390 C1380 310 1480 300 1600 330 L1600 760 L0 760Z";
  const tuft = (x, y, size) =>
    Array.from(
      { length: 7 },
      (_, blade) =>
        `<path d="M${x} ${y}q${(blade - 3) * size * 0.25} ${-size * 0.7} ${(blade - 3) * size * 0.5} ${-size}" fill="none" stroke="#5e7b35" stroke-width="6" stroke-linecap="round"/>`,
    ).join("");
  const tufts = [
    [760, 300, 70],
    [800, 250, 85],
    [850, 226, 90],
    [900, 250, 80],
    [950, 305, 70],
    [1330, 366, 60],
    [1420, 318, 60],
    [1500, 305, 55],
  ];
  return svg(
    `<rect width="${W}" height="560" fill="#e8eef0"/><path d="M0 530 q60 -22 120 0 t120 0 t120 0 L360 760 L0 760Z" fill="#0f5c63" fill-opacity="0.85"/><path d="${ground}" fill="#e2cf9c" stroke="#b79b57" stroke-width="5"/>${tufts.map(([x, y, size]) => tuft(x, y, size)).join("")}<line x1="690" y1="120" x2="690" y2="440" stroke="#7a2e57" stroke-width="4" stroke-dasharray="12 10"/><circle cx="690" cy="452" r="12" fill="#7a2e57"/>`,
  );
}

/** The gauge on the quay: a staff with decimetres and the water at its foot, as a vector drawing. */
function gauge() {
  const marks = Array.from(
    { length: 21 },
    (_, nth) =>
      `<path d="M40 ${20 + nth * 12}h${nth % 5 ? 10 : 22}" stroke="#16324a" stroke-width="${nth % 5 ? 1.5 : 2.5}"/>`,
  ).join("");
  const metres = [5, 4, 3, 2, 1]
    .map((metre, nth) => `<path d="M70 ${16 + nth * 60}h${6 + metre * 3}v8h-${6 + metre * 3}z" fill="#2f7f86"/>`)
    .join("");
  return `<svg xmlns="http://www.w3.org/2000/svg" width="180" height="290" viewBox="0 0 180 290"><rect x="28" y="10" width="12" height="270" fill="#ffffff" stroke="#16324a" stroke-width="2"/>${marks}${metres}<path d="M0 200c15-8 30-8 45 0s30 8 45 0 30-8 45 0 30 8 45 0v90H0z" fill="#2f7f86" fill-opacity="0.45"/><path d="M0 200c15-8 30-8 45 0s30 8 45 0 30-8 45 0 30 8 45 0" fill="none" stroke="#16324a" stroke-width="2"/></svg>\n`;
}

mkdirSync(out, { recursive: true });
for (const [name, drawing] of [
  ["tide-fortnight", tides()],
  ["dune-profile", dune()],
])
  writeFileSync(
    join(out, `${name}.png`),
    new Resvg(drawing, { fitTo: { mode: "width", value: 1280 } }).render().asPng(),
  );
writeFileSync(join(out, "gauge.svg"), gauge());
