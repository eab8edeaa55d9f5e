import { EFFECTS, TRANSITIONS } from "@unitext/core/model";

/**
 * CSS that plays transitions and entrances, unless the reader asks for reduced motion. The drawing in an element with
 * `data-transition` plays it in its `--seconds`; a group with `data-effect` takes the seconds in `--takes`, after those
 * in `--waits`. In a drawing with `data-direction="rtl"` motion from the side is mirrored. Nothing plays under `still`, and a `later` group is hidden.
 */
export const MOTION_CSS = `@media (prefers-reduced-motion:no-preference){
${TRANSITIONS.map((kind) => `[data-transition=${kind}]>svg{animation:${kind} var(--seconds,1s) ease}`).join("")}
@keyframes fade{from{opacity:0}}@keyframes push{from{transform:translateX(30%);opacity:0}}@keyframes wipe{from{clip-path:inset(0 100% 0 0)}to{clip-path:inset(0)}}
[data-transition=push]>svg[data-direction=rtl]{animation-name:push-rtl}[data-transition=wipe]>svg[data-direction=rtl]{animation-name:wipe-rtl}
@keyframes push-rtl{from{transform:translateX(-30%);opacity:0}}@keyframes wipe-rtl{from{clip-path:inset(0 0 0 100%)}to{clip-path:inset(0)}}
[data-effect]{transform-box:fill-box;transform-origin:center;animation:1ms var(--waits,0s) ease-out both}
${EFFECTS.map((effect) => `[data-effect=${effect}]{animation-name:comes-${effect}${effect === "appear" ? "" : ";animation-duration:var(--takes,0.5s)"}}`).join("")}
svg[data-direction=rtl] [data-effect=wipe]{animation-name:comes-wipe-rtl}
.later [data-effect],.later[data-effect],.still [data-effect]{animation:none}
@keyframes comes-appear{from{visibility:hidden}}@keyframes comes-fade{from{opacity:0}}@keyframes comes-wipe{from{clip-path:inset(-20px 100% -20px -20px)}to{clip-path:inset(-20px)}}@keyframes comes-wipe-rtl{from{clip-path:inset(-20px -20px -20px 100%)}to{clip-path:inset(-20px)}}@keyframes comes-slide{from{transform:translateY(540px)}}@keyframes comes-grow{from{transform:scale(0)}}}`;
