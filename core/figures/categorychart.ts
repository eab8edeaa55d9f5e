import { hasSecondAxis, must, isJoined } from "@unitext/core/model";
import { scaleLinear, scaleBand, scalePoint } from "d3-scale";
import { area as areaShape, line, curveMonotoneX, curveLinear } from "d3-shape";
import { naming, shortened } from "./categories";
import {
  type Drawer,
  type Data,
  around,
  shadesOf,
  measuredBy,
  domain,
  ticksOf,
  axisFormat,
  plain,
  formatted,
  stacked,
} from "./chartframe";
import { polygon, mixed, rectangle, legible } from "./figure";

/**
 * Draws columns, lines and areas over categories on a horizontal axis. In a combined chart each series has its own
 * type, measured on the left or on the secondary axis on the right.
 */
export function categoryChart(kind: "column" | "line" | "area" | "combined"): Drawer {
  return (given, frame, style) => {
    const twice = hasSecondAxis({ type: kind, series: given.series });
    const data: Data = twice ? given : { ...given, series: given.series.map(({ axis: _, ...series }) => series) };
    const { colours, size, measure } = style;
    const { figure, room: inside } = around(data, frame, style);
    const shades = shadesOf(data, style);
    const forms = data.series.map(({ type }) => (kind === "combined" ? (type ?? "column") : kind));
    const scaleFor = (by: "primary" | "secondary") => {
      const own = measuredBy(data, by);
      const scale = scaleLinear().domain(
        domain(
          own,
          forms.some(
            (type, nth) => type !== "line" && (data.series[nth]?.axis === "secondary") === (by === "secondary"),
          ),
        ),
      );
      if (own.yAxis?.max === undefined) scale.nice(6);
      return { scale, own, ticks: ticksOf(scale, inside.height, size * 2.4, axisFormat(own)) };
    };
    const { scale: first, ticks } = scaleFor("primary");
    const other = twice ? scaleFor("secondary") : undefined;
    const said = (text: string | undefined) => (text ? size * 1.6 : 0);
    const left = inside.x + Math.max(...ticks.map(({ text }) => measure(text, size))) + size * 0.6;
    const right = other ? Math.max(...other.ticks.map(({ text }) => measure(text, size))) + size * 0.6 : 0;
    const width = Math.max(1, inside.x + inside.width - left - right);
    const count = Math.max(1, data.categories.length);
    const room = width / count;
    const {
      turn,
      every,
      height: high,
      longest,
    } = naming(data.categories, room, inside.height, left + room / 2 - inside.x, style);
    const foot = high + size * 0.5;
    const above = said(data.yAxis?.title || (twice ? data.secondaryAxis?.title : undefined));
    const area = {
      x: left,
      y: inside.y + above,
      width,
      height: Math.max(1, inside.height - foot - above - said(data.xAxis?.title)),
    };
    const scales = data.series.map(({ axis }) => (axis === "secondary" && other ? other.scale : first));
    for (const scale of [first, other?.scale]) scale?.range([area.y + area.height, area.y + size * 0.4]);
    if (other && data.secondaryAxis?.title)
      figure.labels.push({
        text: plain(data.secondaryAxis.title),
        frame: { x: area.x, y: inside.y - size * 0.2, width: width + right, height: size * 1.4 },
        align: "end",
        anchor: "top",
        fill: colours.muted,
        size: size * 0.9,
      });
    for (const { value, text } of other?.ticks ?? [])
      figure.labels.push({
        text: plain(text),
        frame: {
          x: area.x + width + size * 0.4,
          y: must(other?.scale(value)) - size * 0.7,
          width: right + size,
          height: size * 1.4,
        },
        align: "start",
        anchor: "middle",
        fill: colours.muted,
        size,
      });
    if (data.yAxis?.title)
      figure.labels.push({
        text: plain(data.yAxis.title),
        frame: { x: inside.x, y: inside.y - size * 0.2, width: area.width, height: size * 1.4 },
        align: "start",
        anchor: "top",
        fill: colours.muted,
        size: size * 0.9,
      });
    if (data.xAxis?.title)
      figure.labels.push({
        text: plain(data.xAxis.title),
        frame: { x: area.x, y: area.y + area.height + foot, width, height: size * 1.5 },
        align: "centre",
        anchor: "top",
        fill: colours.muted,
        size,
      });
    for (const { value, text } of ticks) {
      const at = first(value);
      figure.paths.push({
        d: polygon(
          [
            [area.x, at],
            [area.x + area.width, at],
          ],
          false,
        ),
        stroke: value === 0 ? colours.muted : mixed(colours.muted, colours.paper, 0.65),
        width: value === 0 ? 1.2 : 0.6,
      });
      figure.labels.push({
        text: plain(text),
        frame: {
          x: left - size * 0.4 - measure(text, size) - size,
          y: at - size * 0.7,
          width: measure(text, size) + size,
          height: size * 1.4,
        },
        align: "end",
        anchor: "middle",
        fill: colours.muted,
        size,
      });
    }
    const along: [number, number] = data.xAxis?.reversed
      ? [area.x + area.width, area.x]
      : [area.x, area.x + area.width];
    data.categories.forEach((name, at) => {
      if (at % every) return;
      const middle = area.x + ((data.xAxis?.reversed ? count - at - 1 : at) + 0.5) * room;
      const top = area.y + area.height + size * 0.4;
      const words = {
        align: turn ? ("end" as const) : ("centre" as const),
        anchor: turn ? ("middle" as const) : ("top" as const),
        fill: colours.muted,
        size,
      };
      if (!turn) {
        figure.labels.push({
          ...words,
          text: plain(name),
          frame: { x: middle - room / 2, y: top, width: room, height: high },
        });
        return;
      }
      // Turned names end at their tick.
      const said = shortened(name, longest, style);
      const wide = measure(said, size) + 1;
      figure.labels.push({
        ...words,
        text: plain(said),
        frame: { x: middle - wide, y: top - size * 0.65, width: wide, height: size * 1.3 },
        turn: { by: turn, about: [middle, top] },
      });
    });
    // A label goes beyond the end of a point or column, or into the middle of a stacked piece in a contrasting colour.
    const label = (
      nth: number,
      value: number,
      x: number,
      y: number,
      where: { anchor: "top" | "middle" | "bottom"; fill: string } = { anchor: "bottom", fill: colours.ink },
    ) => {
      const format = data.series[nth]?.axis === "secondary" ? data.secondaryAxis?.format : data.format;
      const top = y - size * { top: -0.1, middle: 0.65, bottom: 1.4 }[where.anchor];
      if (data.labels === "value")
        figure.labels.push({
          ...where,
          text: plain(formatted(value, format)),
          frame: { x: x - room, y: top, width: room * 2, height: size * 1.3 },
          align: "centre",
          size: size * 0.9,
        });
    };
    const floors = scales.map((y) => Math.max(must(y.domain()[0]), Math.min(must(y.domain()[1]), 0)));
    const piles = data.stack
      ? { primary: stacked(measuredBy(data, "primary")), secondary: stacked(measuredBy(data, "secondary")) }
      : undefined;
    const spans = data.series.map(({ axis }) => piles?.[axis ?? "primary"].shift());
    const band = scaleBand<number>()
      .domain(data.categories.map((_, at) => at))
      .range(along)
      .paddingInner(0.3)
      .paddingOuter(0.15);
    const columns = data.series.flatMap((_, nth) => (forms[nth] === "column" ? [nth] : []));
    const inner = scaleBand<number>()
      .domain(data.stack ? [0] : columns)
      .range([0, band.bandwidth()])
      .padding(!data.stack && columns.length > 1 ? 0.08 : 0);
    const x = scalePoint<number>()
      .domain(data.categories.map((_, at) => at))
      .range(along)
      .padding(0.5);
    // Lines are drawn over columns, and columns over areas, in whatever order a file names them.
    const order = ["area", "column", "line"];
    const drawn = data.series
      .map((one, nth) => ({ ...one, nth }))
      .sort((a, b) => order.indexOf(forms[a.nth] as string) - order.indexOf(forms[b.nth] as string));
    drawn.forEach(({ values, points: own, smooth, joined, nth }) => {
      const fill = must(shades[nth]);
      const y = must(scales[nth]);
      const span = (at: number): [number, number] | null =>
        spans[nth]
          ? (spans[nth]?.[at] ?? null)
          : values[at] === null || values[at] === undefined
            ? null
            : [must(floors[nth]), values[at]];
      const points = data.categories.map((_, at) => span(at));
      if (forms[nth] === "column") {
        points.forEach((value, at) => {
          if (!value) return;
          const [a, b] = [y(value[0]), y(value[1])];
          const place = {
            x: must(band(at)) + must(inner(data.stack ? 0 : nth)),
            y: Math.min(a, b),
            width: inner.bandwidth(),
            height: Math.abs(a - b),
          };
          figure.paths.push({ d: rectangle(place), fill: own?.[at] ?? fill });
          const middle = place.x + place.width / 2;
          if (data.stack)
            label(nth, must(values[at]), middle, place.y + place.height / 2, {
              anchor: "middle",
              fill: legible(own?.[at] ?? fill, colours),
            });
          else
            label(nth, must(values[at]), middle, b, {
              anchor: must(values[at]) < 0 ? "top" : "bottom",
              fill: colours.ink,
            });
        });
        return;
      }
      const defined = (value: [number, number] | null) => value !== null;
      if (forms[nth] === "area") {
        const d = areaShape<[number, number] | null>()
          .defined(defined)
          .x((_, at) => must(x(at)))
          .y0((value) => y(value?.[0] ?? 0))
          .y1((value) => y(value?.[1] ?? 0))(points);
        if (d) figure.paths.push({ d, fill, fillOpacity: data.stack ? 1 : 0.55 });
      }
      const path = line<[number, number] | null>()
        .curve(smooth ? curveMonotoneX : curveLinear)
        .defined(defined)
        .x((_, at) => must(x(at)))
        .y((value) => y(value?.[1] ?? 0))(points);
      const unjoined = forms[nth] === "line" && !isJoined({ joined }, "line");
      if (path && !unjoined) figure.paths.push({ d: path, stroke: fill, width: forms[nth] === "area" ? 1.4 : 2.4 });
      points.forEach((value, at) => {
        if (!value) return;
        if (forms[nth] === "line" && (unjoined || data.categories.length <= 24))
          figure.paths.push({
            d: rectangle({ x: must(x(at)) - 2.6, y: y(value[1]) - 2.6, width: 5.2, height: 5.2 }, 2.6),
            fill,
          });
        label(nth, must(values[at]), must(x(at)), y(value[1]));
      });
    });
    return figure;
  };
}
