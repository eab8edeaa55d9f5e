import { type Preset, RECT } from "./preset";

/** The points of the line from a callout to what it refers to. */
const LEADER_1 = "y1=*/ h adj1 100000; x1=*/ w adj2 100000; y2=*/ h adj3 100000; x2=*/ w adj4 100000";
const LEADER_2 =
  "y1=*/ h adj1 100000; x1=*/ w adj2 100000; y2=*/ h adj3 100000; x2=*/ w adj4 100000; y3=*/ h adj5 100000; x3=*/ w adj6 100000";
const LEADER_3 =
  "y1=*/ h adj1 100000; x1=*/ w adj2 100000; y2=*/ h adj3 100000; x2=*/ w adj4 100000; y3=*/ h adj5 100000; x3=*/ w adj6 100000; y4=*/ h adj7 100000; x4=*/ w adj8 100000";
export const CLOUD =
  "[w=43200 h=43200]M 3900 14370 A 6753 9190 -11429249 7426832 A 5333 7267 -8646143 5396714 A 4365 5945 -8748475 5983381 A 4857 6595 -7859164 7034504 A 5333 7273 -4722533 6541615 A 6775 9220 -2776035 7816140 A 5785 7867 37501 6842000 A 6752 9215 1347096 6910353 A 7720 10543 3974558 4542661 A 4360 5918 -16496525 8804134 A 4345 5945 -14809710 9151131 Z";

/** The outline of a curved ribbon. */
const CURVED =
  "M l t Q cx1 cy1 x3 y1 L x2 y3 Q hc cy3 x5 y3 L x4 y1 Q cx2 cy1 r t L x6 y2 L r rh Q cx5 cy4 x5 y5 L x5 y6 Q hc cy6 x2 y6 L x2 y5 Q cx4 cy4 l rh L wd8 y2 ";
const DRAWN = {
  callout1: {
    adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333",
    guides: LEADER_1,
    path: `[s0]${RECT}|[f0]M x1 y1 L x2 y2`,
  },
  borderCallout1: {
    adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333",
    guides: LEADER_1,
    path: `${RECT}|[f0]M x1 y1 L x2 y2`,
  },
  accentCallout1: {
    adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333",
    guides: LEADER_1,
    path: `[s0]${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2`,
  },
  accentBorderCallout1: {
    adjust: "adj1=18750 adj2=-8333 adj3=112500 adj4=-38333",
    guides: LEADER_1,
    path: `${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2`,
  },
  callout2: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667",
    guides: LEADER_2,
    path: `[s0]${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3`,
  },
  borderCallout2: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667",
    guides: LEADER_2,
    path: `${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3`,
  },
  accentCallout2: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667",
    guides: LEADER_2,
    path: `[s0]${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3`,
  },
  accentBorderCallout2: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=112500 adj6=-46667",
    guides: LEADER_2,
    path: `${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3`,
  },
  callout3: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333",
    guides: LEADER_3,
    path: `[s0]${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4`,
  },
  borderCallout3: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333",
    guides: LEADER_3,
    path: `${RECT}|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4`,
  },
  accentCallout3: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333",
    guides: LEADER_3,
    path: `[s0]${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4`,
  },
  accentBorderCallout3: {
    adjust: "adj1=18750 adj2=-8333 adj3=18750 adj4=-16667 adj5=100000 adj6=-16667 adj7=112963 adj8=-8333",
    guides: LEADER_3,
    path: `${RECT}|[f0]M x1 t L x1 b|[f0]M x1 y1 L x2 y2 L x3 y3 L x4 y4`,
  },
  cloudCallout: {
    adjust: "adj1=-20833 adj2=62500",
    guides:
      "dxPos=*/ w adj1 100000; dyPos=*/ h adj2 100000; xPos=+- hc dxPos 0; yPos=+- vc dyPos 0; ht=cat2 hd2 dxPos dyPos; wt=sat2 wd2 dxPos dyPos; g2=cat2 wd2 ht wt; g3=sat2 hd2 ht wt; g4=+- hc g2 0; g5=+- vc g3 0; g6=+- g4 0 xPos; g7=+- g5 0 yPos; g8=mod g6 g7 0; g9=*/ ss 6600 21600; g10=+- g8 0 g9; g11=*/ g10 1 3; g12=*/ ss 1800 21600; g13=+- g11 g12 0; g14=*/ g13 g6 g8; g15=*/ g13 g7 g8; g16=+- g14 xPos 0; g17=+- g15 yPos 0; g18=*/ ss 4800 21600; g19=*/ g11 2 1; g20=+- g18 g19 0; g21=*/ g20 g6 g8; g22=*/ g20 g7 g8; g23=+- g21 xPos 0; g24=+- g22 yPos 0; g25=*/ ss 1200 21600; g26=*/ ss 600 21600; x23=+- xPos g26 0; x24=+- g16 g25 0; x25=+- g23 g12 0; il=*/ w 2977 21600; it=*/ h 3262 21600; ir=*/ w 17087 21600; ib=*/ h 17337 21600",
    path: `${CLOUD}|M x23 yPos A g26 g26 0 21600000 Z|M x24 g17 A g25 g25 0 21600000 Z|M x25 g24 A g12 g12 0 21600000 Z`,
    text: "il it ir ib",
  },
  ribbon: {
    adjust: "adj1=16667 adj2=50000",
    guides:
      "a1=pin 0 adj1 33333; a2=pin 25000 adj2 75000; x10=+- r 0 wd8; dx2=*/ w a2 200000; x2=+- hc 0 dx2; x9=+- hc dx2 0; x3=+- x2 wd32 0; x8=+- x9 0 wd32; x5=+- x2 wd8 0; x6=+- x9 0 wd8; x4=+- x5 0 wd32; x7=+- x6 wd32 0; y1=*/ h a1 200000; y2=*/ h a1 100000; y4=+- b 0 y2; y3=*/ y4 1 2; hR=*/ h a1 400000; y5=+- b 0 hR; y6=+- y2 0 hR",
    path: "[s0]M l t L x4 t A wd32 hR 3cd4 cd2 L x3 y1 A wd32 hR 3cd4 -10800000 L x8 y2 A wd32 hR cd4 -10800000 L x7 y1 A wd32 hR cd4 cd2 L r t L x10 y3 L r y4 L x9 y4 L x9 y5 A wd32 hR 0 cd4 L x3 b A wd32 hR cd4 cd4 L x2 y4 L l y4 L wd8 y3 Z|[s0 dk]M x5 hR A wd32 hR 0 cd4 L x3 y1 A wd32 hR 3cd4 -10800000 L x5 y2 Z M x6 hR A wd32 hR cd2 -5400000 L x8 y1 A wd32 hR 3cd4 cd2 L x6 y2 Z|[f0]M l t L x4 t A wd32 hR 3cd4 cd2 L x3 y1 A wd32 hR 3cd4 -10800000 L x8 y2 A wd32 hR cd4 -10800000 L x7 y1 A wd32 hR cd4 cd2 L r t L x10 y3 L r y4 L x9 y4 L x9 y5 A wd32 hR 0 cd4 L x3 b A wd32 hR cd4 cd4 L x2 y4 L l y4 L wd8 y3 Z M x5 hR L x5 y2 M x6 y2 L x6 hR M x2 y4 L x2 y6 M x9 y6 L x9 y4",
    text: "x2 y2 x9 b",
  },
  ellipseRibbon: {
    adjust: "adj1=25000 adj2=50000 adj3=12500",
    guides:
      "a1=pin 0 adj1 100000; a2=pin 25000 adj2 75000; q10=+- 100000 0 a1; q11=*/ q10 1 2; q12=+- a1 0 q11; minAdj3=max 0 q12; a3=pin minAdj3 adj3 a1; dx2=*/ w a2 200000; x2=+- hc 0 dx2; x3=+- x2 wd8 0; x4=+- r 0 x3; x5=+- r 0 x2; x6=+- r 0 wd8; dy1=*/ h a3 100000; f1=*/ 4 dy1 w; q0=*/ x3 x3 w; q2=+- x3 0 q0; y1=*/ f1 q2 1; cx1=*/ x3 1 2; cy1=*/ f1 cx1 1; cx2=+- r 0 cx1; q1=*/ h a1 100000; dy3=+- q1 0 dy1; q3=*/ x2 x2 w; q4=+- x2 0 q3; q5=*/ f1 q4 1; y3=+- q5 dy3 0; q6=+- dy1 dy3 y3; q7=+- q6 dy1 0; cy3=+- q7 dy3 0; rh=+- b 0 q1; q8=*/ dy1 14 16; y2=+/ q8 rh 2; y5=+- q5 rh 0; y6=+- y3 rh 0; cx4=*/ x2 1 2; q9=*/ f1 cx4 1; cy4=+- q9 rh 0; cx5=+- r 0 cx4; cy6=+- cy3 rh 0; y7=+- y1 dy3 0; cy7=+- q1 q1 y7",
    path: `[s0]${CURVED}Z|[s0 dk]M x3 y7 L x3 y1 L x2 y3 Q hc cy3 x5 y3 L x4 y1 L x4 y7 Q hc cy7 x3 y7 Z|[f0]${CURVED}Z M x2 y5 L x2 y3 M x5 y3 L x5 y5 M x3 y1 L x3 y7 M x4 y7 L x4 y1`,
    text: "x2 q1 x5 y6",
  },
  leftRightRibbon: {
    adjust: "adj1=50000 adj2=50000 adj3=16667",
    guides:
      "a3=pin 0 adj3 33333; maxAdj1=+- 100000 0 a3; a1=pin 0 adj1 maxAdj1; w1=+- wd2 0 wd32; maxAdj2=*/ 100000 w1 ss; a2=pin 0 adj2 maxAdj2; x1=*/ ss a2 100000; x4=+- r 0 x1; dy1=*/ h a1 200000; dy2=*/ h a3 -200000; ly1=+- vc dy2 dy1; ry4=+- vc dy1 dy2; ly2=+- ly1 dy1 0; ry3=+- b 0 ly2; ly4=*/ ly2 2 1; ry1=+- b 0 ly4; ly3=+- ly4 0 ly1; ry2=+- b 0 ly3; hR=*/ a3 ss 400000; x2=+- hc 0 wd32; x3=+- hc wd32 0; y1=+- ly1 hR 0; y2=+- ry2 0 hR",
    path: "[s0]M l ly2 L x1 t L x1 ly1 L hc ly1 A wd32 hR 3cd4 cd2 A wd32 hR 3cd4 -10800000 L x4 ry2 L x4 ry1 L r ry3 L x4 b L x4 ry4 L hc ry4 A wd32 hR cd4 cd4 L x2 ly3 L x1 ly3 L x1 ly4 Z|[s0 dk]M x3 y1 A wd32 hR 0 cd4 A wd32 hR 3cd4 -10800000 L x3 ry2 Z|[f0]M l ly2 L x1 t L x1 ly1 L hc ly1 A wd32 hR 3cd4 cd2 A wd32 hR 3cd4 -10800000 L x4 ry2 L x4 ry1 L r ry3 L x4 b L x4 ry4 L hc ry4 A wd32 hR cd4 cd4 L x2 ly3 L x1 ly3 L x1 ly4 Z M x3 y1 L x3 ry2 M x2 y2 L x2 ly3",
    text: "x1 ly1 x4 ry4",
  },
  verticalScroll: {
    adjust: "adj=12500",
    guides:
      "a=pin 0 adj 25000; ch=*/ ss a 100000; ch2=*/ ch 1 2; ch4=*/ ch 1 4; x3=+- ch ch2 0; x4=+- ch ch 0; x6=+- r 0 ch; x7=+- r 0 ch2; y3=+- b 0 ch; y4=+- b 0 ch2",
    path: "[s0]M ch2 b A ch2 ch2 cd4 -5400000 L ch2 y4 A ch4 ch4 cd4 -10800000 L ch y3 L ch ch2 A ch2 ch2 cd2 cd4 L x7 t A ch2 ch2 3cd4 cd2 L x6 ch L x6 y4 A ch2 ch2 0 cd4 Z|[s0 dk]M x3 t A ch2 ch2 3cd4 cd2 A ch4 ch4 cd4 cd2 Z M ch y4 A ch2 ch2 0 3cd4 A ch4 ch4 3cd4 cd2 Z|[f0]M ch y3 L ch ch2 A ch2 ch2 cd2 cd4 L x7 t A ch2 ch2 3cd4 cd2 L x6 ch L x6 y4 A ch2 ch2 0 cd4 L ch2 b A ch2 ch2 cd4 cd2 Z M x3 t A ch2 ch2 3cd4 cd2 A ch4 ch4 cd4 cd2 L x4 ch2 M x6 ch L x3 ch M ch2 y3 A ch4 ch4 3cd4 cd2 L ch y4 M ch2 b A ch2 ch2 cd4 -5400000 L ch y3",
    text: "ch ch x6 y4",
  },
} satisfies Record<string, Preset>;

/** Callouts with a line, ribbons and scrolls. */
export const BANNERS: Readonly<Record<string, Preset>> = {
  ...DRAWN,
  ribbon2: { ...DRAWN.ribbon, mirror: "y" },
  ellipseRibbon2: { ...DRAWN.ellipseRibbon, mirror: "y" },
  horizontalScroll: { ...DRAWN.verticalScroll, transpose: true },
};
