import { getStroke } from "perfect-freehand";
import { type PointerEvent, useRef } from "react";
import type { Ink, Spot } from "./hall";

/** The width of the drawing in its own units; its height follows the page. */
const WIDTH = 1600;
/** The width of a stroke, and the radius of the pointer, in those units. */
const [STROKE, POINTER] = [9, 12];

/** Returns the outline of a stroke as SVG path data. */
function outline(stroke: readonly Spot[], height: number): string {
  const points = getStroke(
    stroke.map(([x, y]) => [x * WIDTH, y * height]),
    { size: STROKE, thinning: 0.4, smoothing: 0.6, streamline: 0.5 },
  );
  return points.length ? `M${points.map(([x, y]) => `${x?.toFixed(1)} ${y?.toFixed(1)}`).join("L")}Z` : "";
}

export type InkTool = "none" | "pointer" | "pen";

/**
 * What is pointed at and drawn over a slide. With a tool, the pointer of this window points or draws, and `onInk` gets
 * what there is now.
 */
export function InkLayer({
  ink,
  ratio,
  tool = "none",
  onInk,
}: {
  ink: Ink;
  /** The height of the page as a share of its width. */
  ratio: number;
  tool?: InkTool;
  onInk?: (ink: Ink) => void;
}) {
  const layer = useRef<SVGSVGElement>(null);
  const height = WIDTH * ratio;
  const spot = (event: PointerEvent): Spot => {
    const box = layer.current?.getBoundingClientRect();
    return box ? [(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height] : [0, 0];
  };
  const draw = (event: PointerEvent) => {
    const at = spot(event);
    if (tool === "pointer") onInk?.({ ...ink, pointer: at });
    else if (event.buttons & 1) {
      const last = ink.strokes.at(-1) ?? [];
      onInk?.({ ...ink, strokes: [...ink.strokes.slice(0, -1), [...last, at]] });
    }
  };
  return (
    <svg
      ref={layer}
      aria-hidden="true"
      viewBox={`0 0 ${WIDTH} ${height}`}
      className={`absolute inset-0 h-full w-full ${tool === "none" ? "pointer-events-none" : "cursor-crosshair touch-none"}`}
      data-ink={ink.strokes.length}
      onPointerDown={(event) => {
        if (tool !== "pen") return;
        event.currentTarget.setPointerCapture(event.pointerId);
        onInk?.({ ...ink, strokes: [...ink.strokes, [spot(event)]] });
      }}
      onPointerMove={tool === "none" ? undefined : draw}
      onPointerLeave={() => tool === "pointer" && onInk?.({ strokes: ink.strokes })}
    >
      {ink.strokes.map((stroke, nth) => (
        <path key={`${nth} ${stroke.length}`} d={outline(stroke, height)} fill="#c8322b" fillOpacity={0.9} />
      ))}
      {ink.pointer && (
        <circle
          cx={ink.pointer[0] * WIDTH}
          cy={ink.pointer[1] * height}
          r={POINTER}
          fill="#e0322b"
          fillOpacity={0.85}
          stroke="#ffffff"
          strokeWidth={3}
        />
      )}
    </svg>
  );
}
