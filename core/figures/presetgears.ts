import type { Preset } from "./preset";

const TURN = 21600000;

/** Returns the guides of one tooth: it is on an ellipse in the direction of an angle, from A over B and C to D. */
const tooth = (n: number, angle: number) =>
  [
    `aA${n}=+- ${angle} 0 ha; aD${n}=+- ${angle} ha 0`,
    ...["A", "D"].map(
      (p) =>
        `t${p}x${n}=cos rw a${p}${n}; t${p}y${n}=sin rh a${p}${n}; b${p}${n}=at2 t${p}x${n} t${p}y${n}; ct${p}${n}=cos rh b${p}${n}; st${p}${n}=sin rw b${p}${n}; m${p}${n}=mod ct${p}${n} st${p}${n} 0; n${p}${n}=*/ rw rh m${p}${n}; dx${p}${n}=cos n${p}${n} b${p}${n}; dy${p}${n}=sin n${p}${n} b${p}${n}; x${p}${n}=+- hc dx${p}${n} 0; y${p}${n}=+- vc dy${p}${n} 0`,
    ),
    `xAD${n}=+- xA${n} 0 xD${n}; yAD${n}=+- yA${n} 0 yD${n}; aAD${n}=at2 yAD${n} xAD${n}; dxF${n}=sin lFD aAD${n}; dyF${n}=cos lFD aAD${n}; xF${n}=+- xD${n} dxF${n} 0; yF${n}=+- yD${n} dyF${n} 0; xE${n}=+- xA${n} 0 dxF${n}; yE${n}=+- yA${n} 0 dyF${n}; yt${n}=sin th aAD${n}; xt${n}=cos th aAD${n}; yC${n}=+- yF${n} yt${n} 0; xC${n}=+- xF${n} 0 xt${n}; yB${n}=+- yE${n} yt${n} 0; xB${n}=+- xE${n} 0 xt${n}`,
  ].join("; ");

/**
 * Returns a gear whose teeth follow each other clockwise, starting at `first` degrees; `most` limits the slope of their
 * sides.
 */
function gear(teeth: number, first: number, adjust: string, most: number): Preset {
  const angle = (n: number) => Math.round((((first + ((n - 1) * 360) / teeth) % 360) * TURN) / 360);
  const numbers = Array.from({ length: teeth }, (_, nth) => nth + 1);
  const next = (n: number) => (n % teeth) + 1;
  const rims = numbers.map(
    (n) => `r${n}=+- bA${next(n)} 0 bD${n}; s${n}=+- r${n} ${TURN} 0; sw${n}=?: r${n} r${n} s${n}`,
  );
  // The text is between the feet of the teeth.
  const guides = [
    "a1=pin 0 adj1 20000",
    `a2=pin 0 adj2 ${most}`,
    "th=*/ ss a1 100000; lFD=*/ ss a2 100000; th2=*/ th 1 2; l2=*/ lFD 1 2; l3=+- th2 l2 0; rh=+- hd2 0 th; rw=+- wd2 0 th; dr=+- rw 0 rh; maxr=?: dr rh rw; ha=at2 maxr l3",
    ...numbers.map((n) => tooth(n, angle(n))),
    ...rims,
    "tx=cos rw 2700000; ty=sin rh 2700000; il=+- hc 0 tx; ir=+- hc tx 0; it=+- vc 0 ty; ib=+- vc ty 0",
  ].join("; ");
  return {
    adjust,
    guides,
    path: `M xA1 yA1 ${numbers.map((n) => `L xB${n} yB${n} L xC${n} yC${n} L xD${n} yD${n} A rw rh bD${n} sw${n}`).join(" ")} Z`,
    text: "il it ir ib",
  };
}

/** Gears of six and nine teeth. */
export const GEARS: Readonly<Record<string, Preset>> = {
  gear6: gear(6, 330, "adj1=15000 adj2=3526", 5358),
  gear9: gear(9, 310, "adj1=10000 adj2=1763", 2679),
};
