import { ELLIPSE, type Preset, RECT } from "./preset";
import { ARROWS } from "./presetarrows";
import { BANNERS, CLOUD } from "./presetbanners";
import { GEARS } from "./presetgears";
import { SIGNS } from "./presetsigns";

const ELLIPSE_TEXT =
  "idx=cos wd2 2700000; idy=sin hd2 2700000; il=+- hc 0 idx; ir=+- hc idx 0; it=+- vc 0 idy; ib=+- vc idy 0";
const CORNER = "a=pin 0 adj 50000; x1=*/ ss a 100000; x2=+- r 0 x1; y2=+- b 0 x1";
const ARROW = "a1=pin 0 adj1 100000; a2=pin 0 adj2 maxAdj2";
const FIVE =
  "swd2=*/ wd2 hf 100000; shd2=*/ hd2 vf 100000; svc=*/ vc vf 100000; dx1=cos swd2 1080000; dx2=cos swd2 18360000; dy1=sin shd2 1080000; dy2=sin shd2 18360000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; y1=+- svc 0 dy1; y2=+- svc 0 dy2";
const SECTOR =
  "stAng=pin 0 adj1 21599999; enAng=pin 0 adj2 21599999; sw1=+- enAng 0 stAng; sw2=+- sw1 21600000 0; swAng=?: sw1 sw1 sw2; wt1=sin wd2 stAng; ht1=cos hd2 stAng; dx1=cat2 wd2 ht1 wt1; dy1=sat2 hd2 ht1 wt1; x1=+- hc dx1 0; y1=+- vc dy1 0";
const CALLOUT =
  "dxPos=*/ w adj1 100000; dyPos=*/ h adj2 100000; xPos=+- hc dxPos 0; yPos=+- vc dyPos 0; dq=*/ dxPos h w; ady=abs dyPos; adq=abs dq; dz=+- ady 0 adq; xg1=?: dxPos 7 2; xg2=?: dxPos 10 5; x1=*/ w xg1 12; x2=*/ w xg2 12; yg1=?: dyPos 7 2; yg2=?: dyPos 10 5; y1=*/ h yg1 12; y2=*/ h yg2 12; t1=?: dxPos l xPos; xl=?: dz l t1; t2=?: dyPos x1 xPos; xt=?: dz t2 x1; t3=?: dxPos xPos r; xr=?: dz r t3; t4=?: dyPos xPos x1; xb=?: dz t4 x1; t5=?: dxPos y1 yPos; yl=?: dz y1 t5; t6=?: dyPos t yPos; yt=?: dz t6 t; t7=?: dxPos yPos y1; yr=?: dz y1 t7; t8=?: dyPos yPos b; yb=?: dz t8 b";
const PLUS =
  "dx1=*/ w 73490 200000; dy1=*/ h 73490 200000; x1=+- hc 0 dx1; x4=+- hc dx1 0; y1=+- vc 0 dy1; y4=+- vc dy1 0";

/** The preset geometries that can be drawn, by name. */
export const PRESETS: Readonly<Record<string, Preset>> = {
  ...ARROWS,
  ...BANNERS,
  ...SIGNS,
  ...GEARS,
  rect: { path: RECT },
  roundRect: {
    adjust: "adj=16667",
    guides: `${CORNER}; il=*/ x1 29289 100000; ir=+- r 0 il; ib=+- b 0 il`,
    path: "M l x1 A x1 x1 cd2 cd4 L x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4 L x1 b A x1 x1 cd4 cd4 Z",
    text: "il il ir ib",
  },
  round1Rect: { adjust: "adj=16667", guides: CORNER, path: "M l t L x2 t A x1 x1 3cd4 cd4 L r b L l b Z" },
  round2SameRect: {
    adjust: "adj1=16667 adj2=0",
    guides:
      "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; tx1=*/ ss a1 100000; tx2=+- r 0 tx1; bx1=*/ ss a2 100000; bx2=+- r 0 bx1; by1=+- b 0 bx1",
    path: "M tx1 t L tx2 t A tx1 tx1 3cd4 cd4 L r by1 A bx1 bx1 0 cd4 L bx1 b A bx1 bx1 cd4 cd4 L l tx1 A tx1 tx1 cd2 cd4 Z",
  },
  round2DiagRect: {
    adjust: "adj1=16667 adj2=0",
    guides:
      "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; x1=*/ ss a1 100000; y1=+- b 0 x1; a=*/ ss a2 100000; x2=+- r 0 a; y2=+- b 0 a; x3=+- r 0 x1",
    path: "M x1 t L x2 t A a a 3cd4 cd4 L r y1 A x1 x1 0 cd4 L a b A a a cd4 cd4 L l x1 A x1 x1 cd2 cd4 Z",
  },
  snip1Rect: { adjust: "adj=16667", guides: CORNER, path: "M l t L x2 t L r x1 L r b L l b Z" },
  snip2SameRect: {
    adjust: "adj1=16667 adj2=0",
    guides:
      "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; tx1=*/ ss a1 100000; tx2=+- r 0 tx1; bx1=*/ ss a2 100000; bx2=+- r 0 bx1; by1=+- b 0 bx1",
    path: "M tx1 t L tx2 t L r tx1 L r by1 L bx2 b L bx1 b L l by1 L l tx1 Z",
  },
  snip2DiagRect: {
    adjust: "adj1=0 adj2=16667",
    guides:
      "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; lx1=*/ ss a1 100000; lx2=+- r 0 lx1; ly1=+- b 0 lx1; rx1=*/ ss a2 100000; rx2=+- r 0 rx1; ry1=+- b 0 rx1",
    path: "M lx1 t L rx2 t L r rx1 L r ly1 L lx2 b L rx1 b L l ry1 L l lx1 Z",
  },
  snipRoundRect: {
    adjust: "adj1=16667 adj2=16667",
    guides: "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; x1=*/ ss a1 100000; dx2=*/ ss a2 100000; x2=+- r 0 dx2",
    path: "M x1 t L x2 t L r dx2 L r b L l b L l x1 A x1 x1 cd2 cd4 Z",
  },
  ellipse: { guides: ELLIPSE_TEXT, path: ELLIPSE, text: "il it ir ib" },
  triangle: {
    adjust: "adj=50000",
    guides: "a=pin 0 adj 100000; x1=*/ w a 200000; x2=*/ w a 100000; x3=+- x1 wd2 0",
    path: "M l b L x2 t L r b Z",
    text: "x1 vc x3 b",
  },
  rtTriangle: {
    guides: "it=*/ h 7 12; il=*/ w 1 12; ir=*/ w 7 12; ib=*/ h 11 12",
    path: "M l b L l t L r b Z",
    text: "il it ir ib",
  },
  parallelogram: {
    adjust: "adj=25000",
    guides:
      "maxAdj=*/ 100000 w ss; a=pin 0 adj maxAdj; x1=*/ ss a 200000; x2=*/ ss a 100000; x6=+- r 0 x1; x5=+- r 0 x2",
    path: "M l b L x2 t L r t L x5 b Z",
    text: "x1 t x6 b",
  },
  trapezoid: {
    adjust: "adj=25000",
    guides:
      "maxAdj=*/ 50000 w ss; a=pin 0 adj maxAdj; x2=*/ ss a 100000; x3=+- r 0 x2; il=*/ wd3 a maxAdj; it=*/ hd3 a maxAdj; ir=+- r 0 il",
    path: "M l b L x2 t L x3 t L r b Z",
    text: "il it ir b",
  },
  diamond: { guides: "ir=*/ w 3 4; ib=*/ h 3 4", path: "M l vc L hc t L r vc L hc b Z", text: "wd4 hd4 ir ib" },
  pentagon: {
    adjust: "hf=105146 vf=110557",
    guides: `${FIVE}; it=*/ y1 dx2 dx1`,
    path: "M x1 y1 L hc t L x4 y1 L x3 y2 L x2 y2 Z",
    text: "x2 it x3 y2",
  },
  hexagon: {
    adjust: "adj=25000 vf=115470",
    guides:
      "maxAdj=*/ 50000 w ss; a=pin 0 adj maxAdj; shd2=*/ hd2 vf 100000; x1=*/ ss a 100000; x2=+- r 0 x1; dy1=sin shd2 3600000; y1=+- vc 0 dy1; y2=+- vc dy1 0; il=*/ x1 1 2; ir=+- r 0 il",
    path: "M l vc L x1 y1 L x2 y1 L r vc L x2 y2 L x1 y2 Z",
    text: "il y1 ir y2",
  },
  octagon: {
    adjust: "adj=29289",
    guides: `${CORNER}; il=*/ x1 1 2; ir=+- r 0 il; ib=+- b 0 il`,
    path: "M l x1 L x1 t L x2 t L r x1 L r y2 L x2 b L x1 b L l y2 Z",
    text: "il il ir ib",
  },
  plus: {
    adjust: "adj=25000",
    guides: CORNER,
    path: "M l x1 L x1 x1 L x1 t L x2 t L x2 x1 L r x1 L r y2 L x2 y2 L x2 b L x1 b L x1 y2 L l y2 Z",
    text: "l x1 r y2",
  },
  homePlate: {
    adjust: "adj=50000",
    guides: "maxAdj=*/ 100000 w ss; a=pin 0 adj maxAdj; dx1=*/ ss a 100000; x1=+- r 0 dx1; ir=+/ x1 r 2",
    path: "M l t L x1 t L r vc L x1 b L l b Z",
    text: "l t ir b",
  },
  chevron: {
    adjust: "adj=50000",
    guides:
      "maxAdj=*/ 100000 w ss; a=pin 0 adj maxAdj; x1=*/ ss a 100000; x2=+- r 0 x1; dx=+- x2 0 x1; il=?: dx x1 l; ir=?: dx x2 r",
    path: "M l t L x2 t L r vc L x2 b L l b L x1 vc Z",
    text: "il t ir b",
  },
  rightArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 100000 w ss; ${ARROW}; dx1=*/ ss a2 100000; x1=+- r 0 dx1; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; dx2=*/ y1 dx1 hd2; x2=+- x1 dx2 0`,
    path: "M l y1 L x1 y1 L x1 t L r vc L x1 b L x1 y2 L l y2 Z",
    text: "l y1 x2 y2",
  },
  leftArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 100000 w ss; ${ARROW}; x2=*/ ss a2 100000; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; dx1=*/ y1 x2 hd2; x1=+- x2 0 dx1`,
    path: "M l vc L x2 t L x2 y1 L r y1 L r y2 L x2 y2 L x2 b Z",
    text: "x1 y1 r y2",
  },
  upArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 100000 h ss; ${ARROW}; y2=*/ ss a2 100000; dx1=*/ w a1 200000; x1=+- hc 0 dx1; x2=+- hc dx1 0; dy1=*/ x1 y2 wd2; y1=+- y2 0 dy1`,
    path: "M l y2 L hc t L r y2 L x2 y2 L x2 b L x1 b L x1 y2 Z",
    text: "x1 y1 x2 b",
  },
  downArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 100000 h ss; ${ARROW}; dy1=*/ ss a2 100000; y1=+- b 0 dy1; dx1=*/ w a1 200000; x1=+- hc 0 dx1; x2=+- hc dx1 0; dy2=*/ x1 dy1 wd2; y2=+- y1 dy2 0`,
    path: "M l y1 L x1 y1 L x1 t L x2 t L x2 y1 L r y1 L hc b Z",
    text: "x1 t x2 y2",
  },
  leftRightArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 50000 w ss; ${ARROW}; x2=*/ ss a2 100000; x3=+- r 0 x2; dy=*/ h a1 200000; y1=+- vc 0 dy; y2=+- vc dy 0; dx1=*/ y1 x2 hd2; x1=+- x2 0 dx1; x4=+- x3 dx1 0`,
    path: "M l vc L x2 t L x2 y1 L x3 y1 L x3 t L r vc L x3 b L x3 y2 L x2 y2 L x2 b Z",
    text: "x1 y1 x4 y2",
  },
  upDownArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 50000 h ss; ${ARROW}; y2=*/ ss a2 100000; y3=+- b 0 y2; dx=*/ w a1 200000; x1=+- hc 0 dx; x2=+- hc dx 0`,
    path: "M l y2 L hc t L r y2 L x2 y2 L x2 y3 L r y3 L hc b L l y3 L x1 y3 L x1 y2 Z",
    text: "x1 y2 x2 y3",
  },
  notchedRightArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides: `maxAdj2=*/ 100000 w ss; ${ARROW}; dx2=*/ ss a2 100000; x2=+- r 0 dx2; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; x1=*/ dy1 dx2 hd2; x3=+- r 0 x1`,
    path: "M l y1 L x2 y1 L x2 t L r vc L x2 b L x2 y2 L l y2 L x1 vc Z",
    text: "x1 y1 x3 y2",
  },
  star4: {
    adjust: "adj=12500",
    guides:
      "a=pin 0 adj 50000; iwd2=*/ wd2 a 50000; ihd2=*/ hd2 a 50000; sdx=cos iwd2 2700000; sdy=sin ihd2 2700000; sx1=+- hc 0 sdx; sx2=+- hc sdx 0; sy1=+- vc 0 sdy; sy2=+- vc sdy 0",
    path: "M l vc L sx1 sy1 L hc t L sx2 sy1 L r vc L sx2 sy2 L hc b L sx1 sy2 Z",
    text: "sx1 sy1 sx2 sy2",
  },
  star5: {
    adjust: "adj=19098 hf=105146 vf=110557",
    guides: `a=pin 0 adj 50000; ${FIVE}; iwd2=*/ swd2 a 50000; ihd2=*/ shd2 a 50000; sdx1=cos iwd2 20520000; sdx2=cos iwd2 3240000; sdy1=sin ihd2 3240000; sdy2=sin ihd2 20520000; sx1=+- hc 0 sdx1; sx2=+- hc 0 sdx2; sx3=+- hc sdx2 0; sx4=+- hc sdx1 0; sy1=+- svc 0 sdy1; sy2=+- svc 0 sdy2; sy3=+- svc ihd2 0`,
    path: "M x1 y1 L sx2 sy1 L hc t L sx3 sy1 L x4 y1 L sx4 sy2 L x3 y2 L hc sy3 L x2 y2 L sx1 sy2 Z",
    text: "sx1 sy1 sx4 sy3",
  },
  donut: {
    adjust: "adj=25000",
    guides: `a=pin 0 adj 50000; dr=*/ ss a 100000; iwd2=+- wd2 0 dr; ihd2=+- hd2 0 dr; ${ELLIPSE_TEXT}`,
    path: `${ELLIPSE} M dr vc A iwd2 ihd2 cd2 -5400000 A iwd2 ihd2 cd4 -5400000 A iwd2 ihd2 0 -5400000 A iwd2 ihd2 3cd4 -5400000 Z`,
    text: "il it ir ib",
  },
  frame: {
    adjust: "adj1=12500",
    guides: "a1=pin 0 adj1 50000; x1=*/ ss a1 100000; x4=+- r 0 x1; y4=+- b 0 x1",
    path: `${RECT} M x1 x1 L x1 y4 L x4 y4 L x4 x1 Z`,
    text: "x1 x1 x4 y4",
  },
  corner: {
    adjust: "adj1=50000 adj2=50000",
    guides:
      "maxAdj1=*/ 100000 h ss; maxAdj2=*/ 100000 w ss; a1=pin 0 adj1 maxAdj1; a2=pin 0 adj2 maxAdj2; x1=*/ ss a2 100000; dy1=*/ ss a1 100000; y1=+- b 0 dy1",
    path: "M l t L x1 t L x1 y1 L r y1 L r b L l b Z",
    text: "l y1 r b",
  },
  diagStripe: {
    adjust: "adj=50000",
    guides: "a=pin 0 adj 100000; x2=*/ w a 100000; y2=*/ h a 100000",
    path: "M l y2 L x2 t L r t L l b Z",
  },
  foldedCorner: {
    adjust: "adj=16667",
    guides:
      "a=pin 0 adj 50000; dy2=*/ ss a 100000; dy1=*/ dy2 1 5; x1=+- r 0 dy2; x2=+- x1 dy1 0; y2=+- b 0 dy2; y1=+- y2 dy1 0",
    path: "[s0]M l t L r t L r y2 L x1 b L l b Z|[s0 dk]M x1 b L x2 y1 L r y2 Z|[f0]M x1 b L x2 y1 L r y2 L x1 b L l b L l t L r t L r y2",
    text: "l t r y2",
  },
  plaque: {
    adjust: "adj=16667",
    guides: `${CORNER}; il=*/ x1 70711 100000; ir=+- r 0 il; ib=+- b 0 il`,
    path: "M l x1 A x1 x1 cd4 -5400000 L x2 t A x1 x1 cd2 -5400000 L r y2 A x1 x1 3cd4 -5400000 L x1 b A x1 x1 0 -5400000 Z",
    text: "il il ir ib",
  },
  bevel: {
    adjust: "adj=12500",
    guides: CORNER,
    path: "[s0]M x1 x1 L x2 x1 L x2 y2 L x1 y2 Z|[s0 lt]M l t L r t L x2 x1 L x1 x1 Z|[s0 dk]M l b L x1 y2 L x2 y2 L r b Z|[s0 lt]M l t L x1 x1 L x1 y2 L l b Z|[s0 dk]M r t L r b L x2 y2 L x2 x1 Z|[f0]M l t L r t L r b L l b Z M x1 x1 L x2 x1 L x2 y2 L x1 y2 Z M l t L x1 x1 M l b L x1 y2 M r t L x2 x1 M r b L x2 y2",
    text: "x1 x1 x2 y2",
  },
  can: {
    adjust: "adj=25000",
    guides: "maxAdj=*/ 50000 h ss; a=pin 0 adj maxAdj; y1=*/ ss a 200000; y2=+- y1 y1 0; y3=+- b 0 y1",
    path: "[s0]M l y1 A wd2 y1 cd2 -10800000 L r y3 A wd2 y1 0 cd2 Z|[s0 lt]M l y1 A wd2 y1 cd2 cd2 A wd2 y1 0 cd2 Z|[f0]M r y1 A wd2 y1 0 cd2 A wd2 y1 cd2 cd2 L r y3 A wd2 y1 0 cd2 L l y1",
    text: "l y2 r y3",
  },
  cube: {
    adjust: "adj=25000",
    guides: "a=pin 0 adj 100000; y1=*/ ss a 100000; y4=+- b 0 y1; x4=+- r 0 y1",
    path: "[s0]M l y1 L x4 y1 L x4 b L l b Z|[s0 dk]M x4 y1 L r t L r y4 L x4 b Z|[s0 lt]M l y1 L y1 t L r t L x4 y1 Z|[f0]M l y1 L y1 t L r t L r y4 L x4 b L l b Z M l y1 L x4 y1 L r t M x4 y1 L x4 b",
    text: "l y1 x4 b",
  },
  heart: {
    guides:
      "dx1=*/ w 49 48; dx2=*/ w 10 48; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; y1=+- t 0 hd3; il=*/ w 1 6; ir=*/ w 5 6; ib=*/ h 2 3",
    path: "M hc hd4 C x3 y1 x4 hd4 hc b C x1 hd4 x2 y1 hc hd4 Z",
    text: "il hd4 ir ib",
  },
  teardrop: {
    adjust: "adj=100000",
    guides: `a=pin 0 adj 200000; r2=sqrt 2; tw=*/ wd2 r2 1; th=*/ hd2 r2 1; sw=*/ tw a 100000; sh=*/ th a 100000; dx1=cos sw 2700000; dy1=sin sh 2700000; x1=+- hc dx1 0; y1=+- vc 0 dy1; x2=+/ hc x1 2; y2=+/ vc y1 2; ${ELLIPSE_TEXT}`,
    path: "M l vc A wd2 hd2 cd2 cd4 Q x2 t x1 y1 Q r y2 r vc A wd2 hd2 0 cd4 A wd2 hd2 cd4 cd4 Z",
    text: "il it ir ib",
  },
  pie: {
    adjust: "adj1=0 adj2=16200000",
    guides: `${SECTOR}; ${ELLIPSE_TEXT}`,
    path: "M x1 y1 A wd2 hd2 stAng swAng L hc vc Z",
    text: "il it ir ib",
  },
  chord: {
    adjust: "adj1=2700000 adj2=16200000",
    guides: `${SECTOR}; ${ELLIPSE_TEXT}`,
    path: "M x1 y1 A wd2 hd2 stAng swAng Z",
    text: "il it ir ib",
  },
  arc: {
    adjust: "adj1=16200000 adj2=0",
    guides: SECTOR,
    path: "[s0]M x1 y1 A wd2 hd2 stAng swAng L hc vc Z|[f0]M x1 y1 A wd2 hd2 stAng swAng",
  },
  blockArc: {
    adjust: "adj1=10800000 adj2=0 adj3=25000",
    guides: `${SECTOR}; a3=pin 0 adj3 50000; iswAng=+- 0 0 swAng; dr=*/ ss a3 100000; iwd2=+- wd2 0 dr; ihd2=+- hd2 0 dr; wt2=sin iwd2 enAng; ht2=cos ihd2 enAng; dx2=cat2 iwd2 ht2 wt2; dy2=sat2 ihd2 ht2 wt2; x2=+- hc dx2 0; y2=+- vc dy2 0`,
    path: "M x1 y1 A wd2 hd2 stAng swAng L x2 y2 A iwd2 ihd2 enAng iswAng Z",
  },
  wedgeRectCallout: {
    adjust: "adj1=-20833 adj2=62500",
    guides: CALLOUT,
    path: "M l t L x1 t L xt yt L x2 t L r t L r y1 L xr yr L r y2 L r b L x2 b L xb yb L x1 b L l b L l y2 L xl yl L l y1 Z",
  },
  wedgeRoundRectCallout: {
    adjust: "adj1=-20833 adj2=62500 adj3=16667",
    guides: `${CALLOUT}; u1=*/ ss adj3 100000; u2=+- r 0 u1; v2=+- b 0 u1; il=*/ u1 29289 100000; ir=+- r 0 il; ib=+- b 0 il`,
    path: "M l u1 A u1 u1 cd2 cd4 L x1 t L xt yt L x2 t L u2 t A u1 u1 3cd4 cd4 L r y1 L xr yr L r y2 L r v2 A u1 u1 0 cd4 L x2 b L xb yb L x1 b L u1 b A u1 u1 cd4 cd4 L l y2 L xl yl L l y1 Z",
    text: "il il ir ib",
  },
  wedgeEllipseCallout: {
    adjust: "adj1=-20833 adj2=62500",
    guides: `dxPos=*/ w adj1 100000; dyPos=*/ h adj2 100000; xPos=+- hc dxPos 0; yPos=+- vc dyPos 0; sdx=*/ dxPos h 1; sdy=*/ dyPos w 1; pang=at2 sdx sdy; stAng=+- pang 660000 0; enAng=+- pang 0 660000; dx1=cos wd2 stAng; dy1=sin hd2 stAng; x1=+- hc dx1 0; y1=+- vc dy1 0; dx2=cos wd2 enAng; dy2=sin hd2 enAng; stAng1=at2 dx1 dy1; enAng1=at2 dx2 dy2; swAng1=+- enAng1 0 stAng1; swAng2=+- swAng1 21600000 0; swAng=?: swAng1 swAng1 swAng2; ${ELLIPSE_TEXT}`,
    path: "M xPos yPos L x1 y1 A wd2 hd2 stAng1 swAng Z",
    text: "il it ir ib",
  },
  wave: {
    adjust: "adj1=12500 adj2=0",
    guides:
      "a1=pin 0 adj1 20000; a2=pin -10000 adj2 10000; y1=*/ h a1 100000; dy2=*/ y1 10 3; y2=+- y1 0 dy2; y3=+- y1 dy2 0; y4=+- b 0 y1; y5=+- y4 0 dy2; y6=+- y4 dy2 0; dx1=*/ w a2 100000; of2=*/ w a2 50000; x1=abs dx1; dx2=?: of2 0 of2; x2=+- l 0 dx2; dx5=?: of2 of2 0; x5=+- r 0 dx5; dx3=+/ dx2 x5 3; x3=+- x2 dx3 0; x4=+/ x3 x5 2; x6=+- l dx5 0; x10=+- r dx2 0; x7=+- x6 dx3 0; x8=+/ x7 x10 2; il=max x2 x6; ir=min x5 x10; it=*/ h a1 50000; ib=+- b 0 it",
    path: "M x2 y1 C x3 y2 x4 y3 x5 y1 L x10 y4 C x8 y6 x7 y5 x6 y4 Z",
    text: "il it ir ib",
  },
  doubleWave: {
    adjust: "adj1=6250 adj2=0",
    guides:
      "a1=pin 0 adj1 12500; a2=pin -10000 adj2 10000; y1=*/ h a1 100000; dy2=*/ y1 10 3; y2=+- y1 0 dy2; y3=+- y1 dy2 0; y4=+- b 0 y1; y5=+- y4 0 dy2; y6=+- y4 dy2 0; of2=*/ w a2 50000; dx2=?: of2 0 of2; x2=+- l 0 dx2; dx8=?: of2 of2 0; x8=+- r 0 dx8; dx3=+/ dx2 x8 6; x3=+- x2 dx3 0; dx4=+/ dx2 x8 3; x4=+- x2 dx4 0; x5=+/ x2 x8 2; x6=+- x5 dx3 0; x7=+/ x6 x8 2; x9=+- l dx8 0; x15=+- r dx2 0; x10=+- x9 dx3 0; x11=+- x9 dx4 0; x12=+/ x9 x15 2; x13=+- x12 dx3 0; x14=+/ x13 x15 2; it=*/ h a1 50000; ib=+- b 0 it",
    path: "M x2 y1 C x3 y2 x4 y3 x5 y1 C x6 y2 x7 y3 x8 y1 L x15 y4 C x14 y6 x13 y5 x12 y4 C x11 y6 x10 y5 x9 y4 Z",
    text: "l it r ib",
  },
  decagon: {
    adjust: "vf=105146",
    guides:
      "shd2=*/ hd2 vf 100000; dx1=cos wd2 2160000; dx2=cos wd2 4320000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; dy1=sin shd2 4320000; dy2=sin shd2 2160000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0",
    path: "M l vc L x1 y2 L x2 y1 L x3 y1 L x4 y2 L r vc L x4 y3 L x3 y4 L x2 y4 L x1 y3 Z",
    text: "x1 y2 x4 y3",
  },
  dodecagon: {
    guides:
      "x1=*/ w 2894 21600; x2=*/ w 7906 21600; x3=*/ w 13694 21600; x4=*/ w 18706 21600; y1=*/ h 2894 21600; y2=*/ h 7906 21600; y3=*/ h 13694 21600; y4=*/ h 18706 21600",
    path: "M l y2 L x1 y1 L x2 t L x3 t L x4 y1 L r y2 L r y3 L x4 y4 L x3 b L x2 b L x1 y4 L l y3 Z",
    text: "x1 y1 x4 y4",
  },
  heptagon: {
    adjust: "hf=102572 vf=105210",
    guides:
      "swd2=*/ wd2 hf 100000; shd2=*/ hd2 vf 100000; svc=*/ vc vf 100000; dx1=*/ swd2 97493 100000; dx2=*/ swd2 78183 100000; dx3=*/ swd2 43388 100000; dy1=*/ shd2 62349 100000; dy2=*/ shd2 22252 100000; dy3=*/ shd2 90097 100000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc 0 dx3; x4=+- hc dx3 0; x5=+- hc dx2 0; x6=+- hc dx1 0; y1=+- svc 0 dy1; y2=+- svc dy2 0; y3=+- svc dy3 0; ib=+- b 0 y1",
    path: "M x1 y2 L x2 y1 L hc t L x5 y1 L x6 y2 L x4 y3 L x3 y3 Z",
    text: "x2 y1 x5 ib",
  },
  quadArrow: {
    adjust: "adj1=22500 adj2=22500 adj3=22500",
    guides:
      "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; q1=+- 100000 0 maxAdj1; maxAdj3=*/ q1 1 2; a3=pin 0 adj3 maxAdj3; x1=*/ ss a3 100000; dx2=*/ ss a2 100000; x2=+- hc 0 dx2; x5=+- hc dx2 0; dx3=*/ ss a1 200000; x3=+- hc 0 dx3; x4=+- hc dx3 0; x6=+- r 0 x1; y2=+- vc 0 dx2; y5=+- vc dx2 0; y3=+- vc 0 dx3; y4=+- vc dx3 0; y6=+- b 0 x1",
    path: "M l vc L x1 y2 L x1 y3 L x3 y3 L x3 x1 L x2 x1 L hc t L x5 x1 L x4 x1 L x4 y3 L x6 y3 L x6 y2 L r vc L x6 y5 L x6 y4 L x4 y4 L x4 y6 L x5 y6 L hc b L x2 y6 L x3 y6 L x3 y4 L x1 y4 L x1 y5 Z",
    text: "x1 y3 x6 y4",
  },
  leftUpArrow: {
    adjust: "adj1=25000 adj2=25000 adj3=25000",
    guides:
      "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=+- 100000 0 maxAdj1; a3=pin 0 adj3 maxAdj3; x1=*/ ss a3 100000; dx2=*/ ss a2 50000; x2=+- r 0 dx2; y2=+- b 0 dx2; dx4=*/ ss a2 100000; x4=+- r 0 dx4; y4=+- b 0 dx4; dx3=*/ ss a1 200000; x3=+- x4 0 dx3; x5=+- x4 dx3 0; y3=+- y4 0 dx3; y5=+- y4 dx3 0",
    path: "M l y4 L x1 y2 L x1 y3 L x3 y3 L x3 x1 L x2 x1 L x4 t L r x1 L x5 x1 L x5 y5 L x1 y5 L x1 b Z",
    text: "x1 y3 x5 y5",
  },
  bentUpArrow: {
    adjust: "adj1=25000 adj2=25000 adj3=25000",
    guides:
      "a1=pin 0 adj1 50000; a2=pin 0 adj2 50000; a3=pin 0 adj3 50000; y1=*/ ss a3 100000; dx1=*/ ss a2 50000; x1=+- r 0 dx1; dx3=*/ ss a2 100000; x3=+- r 0 dx3; dx2=*/ ss a1 200000; x2=+- x3 0 dx2; x4=+- x3 dx2 0; dy2=*/ ss a1 100000; y2=+- b 0 dy2",
    path: "M l y2 L x2 y2 L x2 y1 L x1 y1 L x3 t L r y1 L x4 y1 L x4 b L l b Z",
    text: "l y2 x4 b",
  },
  stripedRightArrow: {
    adjust: "adj1=50000 adj2=50000",
    guides:
      "maxAdj2=*/ 84375 w ss; a1=pin 0 adj1 100000; a2=pin 0 adj2 maxAdj2; x4=*/ ss 5 32; dx5=*/ ss a2 100000; x5=+- r 0 dx5; dy1=*/ h a1 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0",
    path: "M l y1 L ssd32 y1 L ssd32 y2 L l y2 Z M ssd16 y1 L ssd8 y1 L ssd8 y2 L ssd16 y2 Z M x4 y1 L x5 y1 L x5 t L r vc L x5 b L x5 y2 L x4 y2 Z",
    text: "x4 y1 x5 y2",
  },
  rightArrowCallout: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977",
    guides:
      "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 w ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss w; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dy1=*/ ss a2 100000; dy2=*/ ss a1 200000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0; dx3=*/ ss a3 100000; x3=+- r 0 dx3; x2=*/ w a4 100000",
    path: "M l t L x2 t L x2 y2 L x3 y2 L x3 y1 L r vc L x3 y4 L x3 y3 L x2 y3 L x2 b L l b Z",
    text: "l t x2 b",
  },
  downArrowCallout: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977",
    guides:
      "maxAdj2=*/ 50000 w ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 h ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss h; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dx1=*/ ss a2 100000; dx2=*/ ss a1 200000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; dy3=*/ ss a3 100000; y3=+- b 0 dy3; y2=*/ h a4 100000",
    path: "M l t L r t L r y2 L x3 y2 L x3 y3 L x4 y3 L hc b L x1 y3 L x2 y3 L x2 y2 L l y2 Z",
    text: "l t r y2",
  },
  halfFrame: {
    adjust: "adj1=33333 adj2=33333",
    guides:
      "maxAdj2=*/ 100000 w ss; a2=pin 0 adj2 maxAdj2; x1=*/ ss a2 100000; g1=*/ h x1 w; g2=+- h 0 g1; maxAdj1=*/ 100000 g2 ss; a1=pin 0 adj1 maxAdj1; y1=*/ ss a1 100000; dx2=*/ y1 w h; x2=+- r 0 dx2; dy2=*/ x1 h w; y2=+- b 0 dy2",
    path: "M l t L r t L x2 y1 L x1 y1 L x1 y2 L l b Z",
    text: "l t r b",
  },
  mathDivide: {
    adjust: "adj1=23520 adj2=5880 adj3=11760",
    guides:
      "a1=pin 1000 adj1 36745; ma1=+- 0 0 a1; ma3h=+/ 73490 ma1 4; ma3w=*/ 36745 w h; maxAdj3=min ma3h ma3w; a3=pin 1000 adj3 maxAdj3; m4a3=*/ -4 a3 1; maxAdj2=+- 73490 m4a3 a1; a2=pin 0 adj2 maxAdj2; dy1=*/ h a1 200000; yg=*/ h a2 100000; rad=*/ h a3 100000; dx1=*/ w 73490 200000; y3=+- vc 0 dy1; y4=+- vc dy1 0; a=+- yg rad 0; y2=+- y3 0 a; y1=+- y2 0 rad; y5=+- b 0 y1; x1=+- hc 0 dx1; x3=+- hc dx1 0",
    path: "M hc y1 A rad rad 3cd4 21600000 Z M hc y5 A rad rad cd4 21600000 Z M x1 y4 L x1 y3 L x3 y3 L x3 y4 Z",
    text: "x1 y3 x3 y4",
  },
  smileyFace: {
    adjust: "adj=4653",
    guides: `a=pin -4653 adj 4653; x1=*/ w 4969 21699; x2=*/ w 6215 21600; x3=*/ w 13135 21600; x4=*/ w 16640 21600; y1=*/ h 7570 21600; y3=*/ h 16515 21600; dy2=*/ h a 100000; y2=+- y3 0 dy2; y4=+- y3 dy2 0; dy3=*/ h a 50000; y5=+- y4 dy3 0; wR=*/ w 1125 21600; hR=*/ h 1125 21600; ${ELLIPSE_TEXT}`,
    path: `[s0]${ELLIPSE}|[dk]M x2 y1 A wR hR cd2 21600000 Z M x3 y1 A wR hR cd2 21600000 Z|[f0]M x1 y2 Q hc y5 x4 y2|[f0]${ELLIPSE}`,
    text: "il it ir ib",
  },
  bracePair: {
    adjust: "adj=8333",
    guides:
      "a=pin 0 adj 25000; x1=*/ ss a 100000; x2=*/ ss a 50000; x3=+- r 0 x2; x4=+- r 0 x1; y2=+- vc 0 x1; y3=+- vc x1 0; y4=+- b 0 x1",
    path: "[s0]M x2 b A x1 x1 cd4 cd4 L x1 y3 A x1 x1 0 -5400000 A x1 x1 cd4 -5400000 L x1 x1 A x1 x1 cd2 cd4 L x3 t A x1 x1 3cd4 cd4 L x4 y2 A x1 x1 cd2 -5400000 A x1 x1 3cd4 -5400000 L x4 y4 A x1 x1 0 cd4 Z|[f0]M x2 b A x1 x1 cd4 cd4 L x1 y3 A x1 x1 0 -5400000 A x1 x1 cd4 -5400000 L x1 x1 A x1 x1 cd2 cd4 M x3 t A x1 x1 3cd4 cd4 L x4 y2 A x1 x1 cd2 -5400000 A x1 x1 3cd4 -5400000 L x4 y4 A x1 x1 0 cd4",
    text: "x1 x1 x4 y4",
  },
  flowChartOnlineStorage: {
    guides: "x2=*/ w 5 6",
    path: "[w=6 h=6]M 1 0 L 6 0 A 1 3 3cd4 -10800000 L 1 6 A 1 3 cd4 cd2 Z",
    text: "wd6 t x2 b",
  },
  flowChartMagneticDrum: {
    guides: "x2=*/ w 2 3",
    path: "[s0 w=6 h=6]M 1 0 L 5 0 A 1 3 3cd4 cd2 L 1 6 A 1 3 cd4 cd2 Z|[f0 w=6 h=6]M 5 6 A 1 3 cd4 cd2|[f0 w=6 h=6]M 1 0 L 5 0 A 1 3 3cd4 cd2 L 1 6 A 1 3 cd4 cd2 Z",
    text: "wd6 t x2 b",
  },
  flowChartDisplay: {
    guides: "x2=*/ w 5 6",
    path: "[w=6 h=6]M 0 3 L 1 0 L 5 0 A 1 3 3cd4 cd2 L 1 6 Z",
    text: "wd6 t x2 b",
  },
  flowChartOfflineStorage: {
    guides: "x4=*/ w 3 4",
    path: "[s0 w=2 h=2]M 0 0 L 2 0 L 1 2 Z|[f0 w=5 h=5]M 2 4 L 3 4|[f0 w=2 h=2]M 0 0 L 2 0 L 1 2 Z",
    text: "wd4 t x4 vc",
  },
  flowChartPunchedTape: {
    guides: "y2=*/ h 9 10; ib=*/ h 4 5",
    path: "[w=20 h=20]M 0 2 A 5 2 cd2 -10800000 A 5 2 cd2 cd2 L 20 18 A 5 2 0 -10800000 A 5 2 0 cd2 Z",
    text: "l hd5 r ib",
  },
  flowChartMultidocument: {
    guides: "y2=*/ h 3675 21600; y8=*/ h 20782 21600; x5=*/ w 18595 21600",
    path: "[w=21600 h=21600]M 0 20782 C 9298 23542 9298 18022 18595 18022 L 18595 3675 L 0 3675 Z M 1532 3675 L 1532 1815 L 20000 1815 L 20000 16252 C 19298 16252 18595 16352 18595 16352 L 18595 3675 Z M 2972 1815 L 2972 0 L 21600 0 L 21600 14392 C 20800 14392 20000 14467 20000 14467 L 20000 1815 Z",
    text: "l y2 x5 y8",
  },
  cloud: {
    guides: "il=*/ w 2977 21600; it=*/ h 3262 21600; ir=*/ w 17087 21600; ib=*/ h 17337 21600",
    path: CLOUD,
    text: "il it ir ib",
  },
  lightningBolt: {
    path: "[w=21600 h=21600]M 8472 0 L 12860 6080 L 11050 6797 L 16577 12007 L 14767 12877 L 21600 21600 L 10012 14915 L 12222 13987 L 5022 9705 L 7602 8382 L 0 3890 Z",
  },
  leftBracket: {
    adjust: "adj=8333",
    guides: "maxAdj=*/ 50000 h ss; a=pin 0 adj maxAdj; y1=*/ ss a 100000; y2=+- b 0 y1",
    path: "[s0]M r b A w y1 cd4 cd4 L l y1 A w y1 cd2 cd4 Z|[f0]M r b A w y1 cd4 cd4 L l y1 A w y1 cd2 cd4",
  },
  rightBracket: {
    adjust: "adj=8333",
    guides: "maxAdj=*/ 50000 h ss; a=pin 0 adj maxAdj; y1=*/ ss a 100000; y2=+- b 0 y1",
    path: "[s0]M l t A w y1 3cd4 cd4 L r y2 A w y1 0 cd4 Z|[f0]M l t A w y1 3cd4 cd4 L r y2 A w y1 0 cd4",
  },
  bracketPair: {
    adjust: "adj=16667",
    guides: CORNER,
    path: "[s0]M l x1 A x1 x1 cd2 cd4 L x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4 L x1 b A x1 x1 cd4 cd4 Z|[f0]M x1 b A x1 x1 cd4 cd4 L l x1 A x1 x1 cd2 cd4 M x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4",
  },
  leftBrace: {
    adjust: "adj1=8333 adj2=50000",
    guides:
      "a2=pin 0 adj2 100000; q1=+- 100000 0 a2; q2=min q1 a2; q3=*/ q2 1 2; maxAdj1=*/ q3 h ss; a1=pin 0 adj1 maxAdj1; y1=*/ ss a1 100000; y3=*/ h a2 100000; y4=+- y3 y1 0",
    path: "[s0]M r b A wd2 y1 cd4 cd4 L hc y4 A wd2 y1 0 -5400000 A wd2 y1 cd4 -5400000 L hc y1 A wd2 y1 cd2 cd4 Z|[f0]M r b A wd2 y1 cd4 cd4 L hc y4 A wd2 y1 0 -5400000 A wd2 y1 cd4 -5400000 L hc y1 A wd2 y1 cd2 cd4",
  },
  rightBrace: {
    adjust: "adj1=8333 adj2=50000",
    guides:
      "a2=pin 0 adj2 100000; q1=+- 100000 0 a2; q2=min q1 a2; q3=*/ q2 1 2; maxAdj1=*/ q3 h ss; a1=pin 0 adj1 maxAdj1; y1=*/ ss a1 100000; y3=*/ h a2 100000; y2=+- y3 0 y1; y4=+- b 0 y1",
    path: "[s0]M l t A wd2 y1 3cd4 cd4 L hc y2 A wd2 y1 cd2 -5400000 A wd2 y1 3cd4 -5400000 L hc y4 A wd2 y1 0 cd4 Z|[f0]M l t A wd2 y1 3cd4 cd4 L hc y2 A wd2 y1 cd2 -5400000 A wd2 y1 3cd4 -5400000 L hc y4 A wd2 y1 0 cd4",
  },
  mathPlus: {
    adjust: "adj1=23520",
    guides: `a1=pin 0 adj1 73490; ${PLUS}; dx2=*/ ss a1 200000; x2=+- hc 0 dx2; x3=+- hc dx2 0; y2=+- vc 0 dx2; y3=+- vc dx2 0`,
    path: "M x1 y2 L x2 y2 L x2 y1 L x3 y1 L x3 y2 L x4 y2 L x4 y3 L x3 y3 L x3 y4 L x2 y4 L x2 y3 L x1 y3 Z",
    text: "x1 y2 x4 y3",
  },
  mathMinus: {
    adjust: "adj1=23520",
    guides:
      "a1=pin 0 adj1 100000; dy1=*/ h a1 200000; dx1=*/ w 73490 200000; y1=+- vc 0 dy1; y2=+- vc dy1 0; x1=+- hc 0 dx1; x2=+- hc dx1 0",
    path: "M x1 y1 L x2 y1 L x2 y2 L x1 y2 Z",
    text: "x1 y1 x2 y2",
  },
  mathEqual: {
    adjust: "adj1=23520 adj2=11760",
    guides:
      "a1=pin 0 adj1 36745; 2a1=*/ a1 2 1; mAdj2=+- 100000 0 2a1; a2=pin 0 adj2 mAdj2; dy1=*/ h a1 100000; dy2=*/ h a2 200000; dx1=*/ w 73490 200000; y2=+- vc 0 dy2; y3=+- vc dy2 0; y1=+- y2 0 dy1; y4=+- y3 dy1 0; x1=+- hc 0 dx1; x2=+- hc dx1 0",
    path: "M x1 y1 L x2 y1 L x2 y2 L x1 y2 Z M x1 y3 L x2 y3 L x2 y4 L x1 y4 Z",
    text: "x1 y1 x2 y4",
  },
  line: { path: "[f0]M l t L r b" },
  straightConnector1: { path: "[f0]M l t L r b" },
  bentConnector2: { path: "[f0]M l t L r t L r b" },
  bentConnector3: { adjust: "adj1=50000", guides: "x1=*/ w adj1 100000", path: "[f0]M l t L x1 t L x1 b L r b" },
  bentConnector4: {
    adjust: "adj1=50000 adj2=50000",
    guides: "x1=*/ w adj1 100000; y2=*/ h adj2 100000",
    path: "[f0]M l t L x1 t L x1 y2 L r y2 L r b",
  },
  bentConnector5: {
    adjust: "adj1=50000 adj2=50000 adj3=50000",
    guides: "x1=*/ w adj1 100000; x3=*/ w adj3 100000; y2=*/ h adj2 100000",
    path: "[f0]M l t L x1 t L x1 y2 L x3 y2 L x3 b L r b",
  },
  curvedConnector2: { path: "[f0]M l t C wd2 t r hd2 r b" },
  curvedConnector3: {
    adjust: "adj1=50000",
    guides: "x2=*/ w adj1 100000; x1=+/ l x2 2; x3=+/ r x2 2; y3=*/ h 3 4",
    path: "[f0]M l t C x1 t x2 hd4 x2 vc C x2 y3 x3 b r b",
  },
  flowChartProcess: { path: RECT },
  flowChartAlternateProcess: {
    guides: "x1=*/ ss 1 6; x2=+- r 0 x1; y2=+- b 0 x1",
    path: "M l x1 A x1 x1 cd2 cd4 L x2 t A x1 x1 3cd4 cd4 L r y2 A x1 x1 0 cd4 L x1 b A x1 x1 cd4 cd4 Z",
  },
  flowChartDecision: {
    guides: "ir=*/ w 3 4; ib=*/ h 3 4",
    path: "M l vc L hc t L r vc L hc b Z",
    text: "wd4 hd4 ir ib",
  },
  flowChartInputOutput: {
    guides: "il=*/ w 1 5; ir=*/ w 4 5",
    path: "[w=5 h=5]M 0 5 L 1 0 L 5 0 L 4 5 Z",
    text: "il t ir b",
  },
  flowChartPredefinedProcess: {
    guides: "il=*/ w 1 8; ir=*/ w 7 8",
    path: `[s0]${RECT}|[f0]M il t L il b M ir t L ir b|[f0]${RECT}`,
    text: "il t ir b",
  },
  flowChartInternalStorage: {
    guides: "il=*/ w 1 8; it=*/ h 1 8",
    path: `[s0]${RECT}|[f0]M il t L il b M l it L r it|[f0]${RECT}`,
    text: "il it r b",
  },
  flowChartDocument: {
    guides: "ib=*/ h 17322 21600",
    path: "[w=21600 h=21600]M 0 0 L 21600 0 L 21600 17322 C 10800 17322 10800 23922 0 20172 Z",
    text: "l t r ib",
  },
  flowChartTerminator: {
    guides: "il=*/ w 1018 21600; ir=*/ w 20582 21600; it=*/ h 3163 21600; ib=*/ h 18437 21600",
    path: "[w=21600 h=21600]M 3475 0 L 18125 0 A 3475 10800 3cd4 cd2 L 3475 21600 A 3475 10800 cd4 cd2 Z",
    text: "il it ir ib",
  },
  flowChartPreparation: {
    guides: "il=*/ w 2 10; ir=*/ w 8 10",
    path: "[w=10 h=10]M 0 5 L 2 0 L 8 0 L 10 5 L 8 10 L 2 10 Z",
    text: "il t ir b",
  },
  flowChartManualInput: { guides: "it=*/ h 1 5", path: "[w=5 h=5]M 0 1 L 5 0 L 5 5 L 0 5 Z", text: "l it r b" },
  flowChartManualOperation: {
    guides: "il=*/ w 1 5; ir=*/ w 4 5",
    path: "[w=5 h=5]M 0 0 L 5 0 L 4 5 L 1 5 Z",
    text: "il t ir b",
  },
  flowChartConnector: { guides: ELLIPSE_TEXT, path: ELLIPSE, text: "il it ir ib" },
  flowChartOffpageConnector: {
    guides: "ib=*/ h 4 5",
    path: "[w=10 h=10]M 0 0 L 10 0 L 10 8 L 5 10 L 0 8 Z",
    text: "l t r ib",
  },
  flowChartExtract: { guides: "ir=*/ w 3 4", path: "[w=2 h=2]M 0 2 L 1 0 L 2 2 Z", text: "wd4 vc ir b" },
  flowChartMerge: { guides: "ir=*/ w 3 4", path: "[w=2 h=2]M 0 0 L 2 0 L 1 2 Z", text: "wd4 t ir vc" },
  flowChartPunchedCard: { guides: "it=*/ h 1 5", path: "[w=5 h=5]M 0 1 L 1 0 L 5 0 L 5 5 L 0 5 Z", text: "l it r b" },
  flowChartDelay: { guides: ELLIPSE_TEXT, path: "M l t L hc t A wd2 hd2 3cd4 cd2 L l b Z", text: "l it ir ib" },
  flowChartSummingJunction: {
    guides: ELLIPSE_TEXT,
    path: `[s0]${ELLIPSE}|[f0]M il it L ir ib M ir it L il ib|[f0]${ELLIPSE}`,
    text: "il it ir ib",
  },
  flowChartOr: {
    guides: ELLIPSE_TEXT,
    path: `[s0]${ELLIPSE}|[f0]M hc t L hc b M l vc L r vc|[f0]${ELLIPSE}`,
    text: "il it ir ib",
  },
  flowChartCollate: { path: "[w=2 h=2]M 0 0 L 2 0 L 1 1 L 2 2 L 0 2 L 1 1 Z" },
  flowChartSort: {
    path: "[s0 w=2 h=2]M 0 1 L 1 0 L 2 1 L 1 2 Z|[f0 w=2 h=2]M 0 1 L 2 1|[f0 w=2 h=2]M 0 1 L 1 0 L 2 1 L 1 2 Z",
  },
  flowChartMagneticDisk: {
    guides: "y1=*/ h 1 3; y3=*/ h 5 6",
    path: "[s0 w=6 h=6]M 0 1 A 3 1 cd2 cd2 L 6 5 A 3 1 0 cd2 Z|[f0 w=6 h=6]M 6 1 A 3 1 0 cd2|[f0 w=6 h=6]M 0 1 A 3 1 cd2 cd2 L 6 5 A 3 1 0 cd2 Z",
    text: "l y1 r y3",
  },
};

/** Stars with many points: the adjust value sets how far in the inner points are. */
export const STARS: Readonly<Record<string, { points: number; adjust: number }>> = {
  star6: { points: 6, adjust: 28868 },
  star7: { points: 7, adjust: 34601 },
  star8: { points: 8, adjust: 37500 },
  star10: { points: 10, adjust: 42533 },
  star12: { points: 12, adjust: 37500 },
  star16: { points: 16, adjust: 37500 },
  star24: { points: 24, adjust: 37500 },
  star32: { points: 32, adjust: 37500 },
};
