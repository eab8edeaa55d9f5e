import type { Preset } from "./preset";

/** A turning arrow: how far its point reaches, where it ends and where it starts, as angles. */
const turning = (point: string, end: string, start: string) =>
  `a5=pin 0 adj5 25000; maxAdj1=*/ a5 2 1; a1=pin 0 adj1 maxAdj1; enAng=pin 1 ${end} 21599999; stAng=pin 0 ${start} 21599999; th=*/ ss a1 100000; thh=*/ ss a5 100000; th2=*/ th 1 2; rw1=+- wd2 th2 thh; rh1=+- hd2 th2 thh; rw2=+- rw1 0 th; rh2=+- rh1 0 th; rw3=+- rw2 th2 0; rh3=+- rh2 th2 0; wtH=sin rw3 enAng; htH=cos rh3 enAng; dxH=cat2 rw3 htH wtH; dyH=sat2 rh3 htH wtH; xH=+- hc dxH 0; yH=+- vc dyH 0; rI=min rw2 rh2; u1=*/ dxH dxH 1; u2=*/ dyH dyH 1; u3=*/ rI rI 1; u4=+- u1 0 u3; u5=+- u2 0 u3; u6=*/ u4 u5 u1; u7=*/ u6 1 u2; u8=+- 1 0 u7; u9=sqrt u8; u10=*/ u4 1 dxH; u11=*/ u10 1 dyH; u12=+/ 1 u9 u11; u13=at2 1 u12; u14=+- u13 21600000 0; u15=?: u13 u13 u14; u16=+- u15 0 enAng; u17=+- u16 21600000 0; u18=?: u16 u16 u17; u19=+- u18 0 cd2; u20=+- u18 0 21600000; u21=?: u19 u20 u18; maxAng=abs u21; aAng=pin 0 ${point} maxAng; ptAng=+- enAng aAng 0; wtA=sin rw3 ptAng; htA=cos rh3 ptAng; dxA=cat2 rw3 htA wtA; dyA=sat2 rh3 htA wtA; xA=+- hc dxA 0; yA=+- vc dyA 0; wtE=sin rw1 stAng; htE=cos rh1 stAng; dxE=cat2 rw1 htE wtE; dyE=sat2 rh1 htE wtE; xE=+- hc dxE 0; yE=+- vc dyE 0; dxG=cos thh ptAng; dyG=sin thh ptAng; xG=+- xH dxG 0; yG=+- yH dyG 0; xB=+- xH 0 dxG; yB=+- yH 0 dyG; sx1=+- xB 0 hc; sy1=+- yB 0 vc; sx2=+- xG 0 hc; sy2=+- yG 0 vc; rO=min rw1 rh1; x1O=*/ sx1 rO rw1; y1O=*/ sy1 rO rh1; x2O=*/ sx2 rO rw1; y2O=*/ sy2 rO rh1; dxO=+- x2O 0 x1O; dyO=+- y2O 0 y1O; dO=mod dxO dyO 0; q1=*/ x1O y2O 1; q2=*/ x2O y1O 1; DO=+- q1 0 q2; q3=*/ rO rO 1; q4=*/ dO dO 1; q5=*/ q3 q4 1; q6=*/ DO DO 1; q7=+- q5 0 q6; q8=max q7 0; sdelO=sqrt q8; ndyO=*/ dyO -1 1; sdyO=?: ndyO -1 1; q9=*/ sdyO dxO 1; q10=*/ q9 sdelO 1; q11=*/ DO dyO 1; dxF1=+/ q11 q10 q4; q12=+- q11 0 q10; dxF2=*/ q12 1 q4; adyO=abs dyO; q13=*/ adyO sdelO 1; q14=*/ DO dxO -1; dyF1=+/ q14 q13 q4; q15=+- q14 0 q13; dyF2=*/ q15 1 q4; q16=+- x2O 0 dxF1; q17=+- x2O 0 dxF2; q18=+- y2O 0 dyF1; q19=+- y2O 0 dyF2; q20=mod q16 q18 0; q21=mod q17 q19 0; q22=+- q21 0 q20; dxF=?: q22 dxF1 dxF2; dyF=?: q22 dyF1 dyF2; sdxF=*/ dxF rw1 rO; sdyF=*/ dyF rh1 rO; xF=+- hc sdxF 0; yF=+- vc sdyF 0; x1I=*/ sx1 rI rw2; y1I=*/ sy1 rI rh2; x2I=*/ sx2 rI rw2; y2I=*/ sy2 rI rh2; dxI=+- x2I 0 x1I; dyI=+- y2I 0 y1I; dI=mod dxI dyI 0; v1=*/ x1I y2I 1; v2=*/ x2I y1I 1; DI=+- v1 0 v2; v3=*/ rI rI 1; v4=*/ dI dI 1; v5=*/ v3 v4 1; v6=*/ DI DI 1; v7=+- v5 0 v6; v8=max v7 0; sdelI=sqrt v8; v9=*/ sdyO dxI 1; v10=*/ v9 sdelI 1; v11=*/ DI dyI 1; dxC1=+/ v11 v10 v4; v12=+- v11 0 v10; dxC2=*/ v12 1 v4; adyI=abs dyI; v13=*/ adyI sdelI 1; v14=*/ DI dxI -1; dyC1=+/ v14 v13 v4; v15=+- v14 0 v13; dyC2=*/ v15 1 v4; v16=+- x1I 0 dxC1; v17=+- x1I 0 dxC2; v18=+- y1I 0 dyC1; v19=+- y1I 0 dyC2; v20=mod v16 v18 0; v21=mod v17 v19 0; v22=+- v21 0 v20; dxC=?: v22 dxC1 dxC2; dyC=?: v22 dyC1 dyC2; sdxC=*/ dxC rw2 rI; sdyC=*/ dyC rh2 rI; xC=+- hc sdxC 0; yC=+- vc sdyC 0; ist0=at2 sdxC sdyC; ist1=+- ist0 21600000 0; istAng=?: ist0 ist0 ist1; isw1=+- stAng 0 istAng; isw2=+- isw1 0 21600000; iswAng=?: isw1 isw2 isw1; p1=+- xF 0 xC; p2=+- yF 0 yC; p3=mod p1 p2 0; p4=*/ p3 1 2; p5=+- p4 0 thh; xGp=?: p5 xF xG; yGp=?: p5 yF yG; xBp=?: p5 xC xB; yBp=?: p5 yC yB; en0=at2 sdxF sdyF; en1=+- en0 21600000 0; en2=?: en0 en0 en1; sw0=+- en2 0 stAng; sw1=+- sw0 21600000 0; swAng=?: sw0 sw0 sw1`;

/** Returns guides under new names, so that they can be used twice. */
function apart(guides: string, mark: string): string {
  const names = new Set(guides.split(";").map((guide) => guide.split("=")[0]?.trim() ?? ""));
  return guides.replace(/[A-Za-z]\w*/g, (name) => (names.has(name) ? name + mark : name));
}
/** The second point of a double arrow: the mirror image of the first, in the other direction. */
const OTHER = apart(
  `eE=+- 21600000 0 adj4; eS=+- 21600000 0 adj3; ${turning("adj2", "eE", "eS")}; oF=+- b 0 yF; oG=+- b 0 yGp; oA=+- b 0 yA; oB=+- b 0 yBp; oS=+- 21600000 0 en2; oI=+- 21600000 0 istAng`,
  "o",
);

const DRAWN = {
  leftRightUpArrow: {
    adjust: "adj1=25000 adj2=25000 adj3=25000",
    guides:
      "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; q1=+- 100000 0 maxAdj1; maxAdj3=*/ q1 1 2; a3=pin 0 adj3 maxAdj3; x1=*/ ss a3 100000; dx2=*/ ss a2 100000; x2=+- hc 0 dx2; x5=+- hc dx2 0; dx3=*/ ss a1 200000; x3=+- hc 0 dx3; x4=+- hc dx3 0; x6=+- r 0 x1; dy2=*/ ss a2 50000; y2=+- b 0 dy2; y4=+- b 0 dx2; y3=+- y4 0 dx3; y5=+- y4 dx3 0; il=*/ dx3 x1 dx2; ir=+- r 0 il",
    path: "M l y4 L x1 y2 L x1 y3 L x3 y3 L x3 x1 L x2 x1 L hc t L x5 x1 L x4 x1 L x4 y3 L x6 y3 L x6 y2 L r y4 L x6 b L x6 y5 L x1 y5 L x1 b Z",
    text: "il y3 ir y5",
  },
  leftArrowCallout: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977",
    guides:
      "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 w ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss w; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dy1=*/ ss a2 100000; dy2=*/ ss a1 200000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0; x1=*/ ss a3 100000; dx2=*/ w a4 100000; x2=+- r 0 dx2",
    path: "M l vc L x1 y1 L x1 y2 L x2 y2 L x2 t L r t L r b L x2 b L x2 y3 L x1 y3 L x1 y4 Z",
    text: "x2 t r b",
  },
  upArrowCallout: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=64977",
    guides:
      "maxAdj2=*/ 50000 w ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 100000 h ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss h; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dx1=*/ ss a2 100000; dx2=*/ ss a1 200000; x1=+- hc 0 dx1; x2=+- hc 0 dx2; x3=+- hc dx2 0; x4=+- hc dx1 0; y1=*/ ss a3 100000; dy2=*/ h a4 100000; y2=+- b 0 dy2",
    path: "M l y2 L x2 y2 L x2 y1 L x1 y1 L hc t L x4 y1 L x3 y1 L x3 y2 L r y2 L r b L l b Z",
    text: "l y2 r b",
  },
  leftRightArrowCallout: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=48123",
    guides:
      "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=*/ 50000 w ss; a3=pin 0 adj3 maxAdj3; q2=*/ a3 ss wd2; maxAdj4=+- 100000 0 q2; a4=pin 0 adj4 maxAdj4; dy1=*/ ss a2 100000; dy2=*/ ss a1 200000; y1=+- vc 0 dy1; y2=+- vc 0 dy2; y3=+- vc dy2 0; y4=+- vc dy1 0; x1=*/ ss a3 100000; x4=+- r 0 x1; dx2=*/ w a4 200000; x2=+- hc 0 dx2; x3=+- hc dx2 0",
    path: "M l vc L x1 y1 L x1 y2 L x2 y2 L x2 t L x3 t L x3 y2 L x4 y2 L x4 y1 L r vc L x4 y4 L x4 y3 L x3 y3 L x3 b L x2 b L x2 y3 L x1 y3 L x1 y4 Z",
    text: "x2 t x3 b",
  },
  quadArrowCallout: {
    adjust: "adj1=18515 adj2=18515 adj3=18515 adj4=48123",
    guides:
      "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; maxAdj3=+- 50000 0 a2; a3=pin 0 adj3 maxAdj3; q2=*/ a3 2 1; maxAdj4=+- 100000 0 q2; a4=pin a1 adj4 maxAdj4; dx2=*/ ss a2 100000; dx3=*/ ss a1 200000; ah=*/ ss a3 100000; dx1=*/ w a4 200000; dy1=*/ h a4 200000; x8=+- r 0 ah; x2=+- hc 0 dx1; x7=+- hc dx1 0; x3=+- hc 0 dx2; x6=+- hc dx2 0; x4=+- hc 0 dx3; x5=+- hc dx3 0; y8=+- b 0 ah; y2=+- vc 0 dy1; y7=+- vc dy1 0; y3=+- vc 0 dx2; y6=+- vc dx2 0; y4=+- vc 0 dx3; y5=+- vc dx3 0",
    path: "M l vc L ah y3 L ah y4 L x2 y4 L x2 y2 L x4 y2 L x4 ah L x3 ah L hc t L x6 ah L x5 ah L x5 y2 L x7 y2 L x7 y4 L x8 y4 L x8 y3 L r vc L x8 y6 L x8 y5 L x7 y5 L x7 y7 L x5 y7 L x5 y8 L x6 y8 L hc b L x3 y8 L x4 y8 L x4 y7 L x2 y7 L x2 y5 L ah y5 L ah y6 Z",
    text: "x2 y2 x7 y7",
  },
  bentArrow: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=43750",
    guides:
      "a2=pin 0 adj2 50000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; a3=pin 0 adj3 50000; th=*/ ss a1 100000; aw2=*/ ss a2 100000; th2=*/ th 1 2; dh2=+- aw2 0 th2; ah=*/ ss a3 100000; bw=+- r 0 ah; bh=+- b 0 dh2; bs=min bw bh; maxAdj4=*/ 100000 bs ss; a4=pin 0 adj4 maxAdj4; bd=*/ ss a4 100000; bd3=+- bd 0 th; bd2=max bd3 0; x3=+- th bd2 0; x4=+- r 0 ah; y3=+- dh2 th 0; y4=+- y3 dh2 0; y5=+- dh2 bd 0",
    path: "M l b L l y5 A bd bd cd2 cd4 L x4 dh2 L x4 t L r aw2 L x4 y4 L x4 y3 L x3 y3 A bd2 bd2 3cd4 -5400000 L th b Z",
  },
  uturnArrow: {
    adjust: "adj1=25000 adj2=25000 adj3=25000 adj4=43750 adj5=75000",
    guides:
      "a2=pin 0 adj2 25000; maxAdj1=*/ a2 2 1; a1=pin 0 adj1 maxAdj1; q2=*/ a1 ss h; q3=+- 100000 0 q2; maxAdj3=*/ q3 h ss; a3=pin 0 adj3 maxAdj3; q1=+- a3 a1 0; minAdj5=*/ q1 ss h; a5=pin minAdj5 adj5 100000; th=*/ ss a1 100000; aw2=*/ ss a2 100000; th2=*/ th 1 2; dh2=+- aw2 0 th2; y5=*/ h a5 100000; ah=*/ ss a3 100000; y4=+- y5 0 ah; x9=+- r 0 dh2; bw=*/ x9 1 2; bs=min bw y4; maxAdj4=*/ bs 100000 ss; a4=pin 0 adj4 maxAdj4; bd=*/ ss a4 100000; bd3=+- bd 0 th; bd2=max bd3 0; x3=+- th bd2 0; x8=+- r 0 aw2; x6=+- x8 0 aw2; x7=+- x6 dh2 0; x4=+- x9 0 bd",
    path: "M l b L l bd A bd bd cd2 cd4 L x4 t A bd bd 3cd4 cd4 L x9 y4 L r y4 L x8 y5 L x6 y4 L x7 y4 L x7 x3 A bd2 bd2 0 -5400000 L x3 th A bd2 bd2 3cd4 -5400000 L th b Z",
  },
  circularArrow: {
    adjust: "adj1=12500 adj2=1142319 adj3=20457681 adj4=10800000 adj5=12500",
    guides: `${turning("adj2", "adj3", "adj4")}`,
    path: "M xE yE A rw1 rh1 stAng swAng L xGp yGp L xA yA L xBp yBp L xC yC A rw2 rh2 istAng iswAng Z",
  },
  leftRightCircularArrow: {
    adjust: "adj1=12500 adj2=1142319 adj3=20457681 adj4=11942319 adj5=12500",
    guides: `${turning("adj2", "adj3", "adj4")}; ${OTHER}; w0=+- en2 0 oSo; w1=+- w0 21600000 0; wO=?: w0 w0 w1; i0=+- oIo 0 istAng; i1=+- i0 0 21600000; wI=?: i0 i1 i0`,
    path: "M xFo oFo A rw1 rh1 oSo wO L xGp yGp L xA yA L xBp yBp L xC yC A rw2 rh2 istAng wI L xBpo oBo L xAo oAo L xGpo oGo Z",
  },
  leftCircularArrow: {
    adjust: "adj1=12500 adj2=-1142319 adj3=1142319 adj4=10800000 adj5=12500",
    guides: `b2=*/ adj2 -1 1; b3=+- 21600000 0 adj3; b4=+- 21600000 0 adj4; ${turning("b2", "b3", "b4")}`,
    mirror: "y",
    path: "M xE yE A rw1 rh1 stAng swAng L xGp yGp L xA yA L xBp yBp L xC yC A rw2 rh2 istAng iswAng Z",
  },
  curvedRightArrow: {
    adjust: "adj1=25000 adj2=50000 adj3=25000",
    guides:
      "maxAdj2=*/ 50000 h ss; a2=pin 0 adj2 maxAdj2; a1=pin 0 adj1 a2; th=*/ ss a1 100000; aw=*/ ss a2 100000; q1=+/ th aw 4; hR=+- hd2 0 q1; q7=*/ hR 2 1; q8=*/ q7 q7 1; q9=*/ th th 1; q10=+- q8 0 q9; q11=sqrt q10; idx=*/ q11 w q7; maxAdj3=*/ 100000 idx ss; a3=pin 0 adj3 maxAdj3; ah=*/ ss a3 100000; y3=+- hR th 0; q2=*/ w w 1; q3=*/ ah ah 1; q4=+- q2 0 q3; q5=sqrt q4; dy=*/ q5 hR w; y5=+- hR dy 0; y7=+- y3 dy 0; q6=+- aw 0 th; dh=*/ q6 1 2; y4=+- y5 0 dh; y8=+- y7 dh 0; aw2=*/ aw 1 2; y6=+- b 0 aw2; x1=+- r 0 ah; swAng=at2 ah dy; stAng=+- cd2 0 swAng; mswAng=+- 0 0 swAng; q12=*/ th 1 2; dang2=at2 idx q12; swAng2=+- dang2 0 cd4; swAng3=+- cd4 dang2 0; stAng3=+- cd2 0 dang2",
    path: "[s0]M l hR A w hR cd2 mswAng L x1 y4 L r y6 L x1 y8 L x1 y7 A w hR stAng swAng Z|[s0 dk]M r th A w hR 3cd4 swAng2 A w hR stAng3 swAng3 Z|[f0]M l hR A w hR cd2 mswAng L x1 y4 L r y6 L x1 y8 L x1 y7 A w hR stAng swAng L l hR A w hR cd2 cd4 L r th A w hR 3cd4 swAng2",
  },
  swooshArrow: {
    adjust: "adj1=25000 adj2=16667",
    guides:
      "a1=pin 1 adj1 75000; maxAdj2=*/ 70000 w ss; a2=pin 0 adj2 maxAdj2; ad1=*/ h a1 100000; ad2=*/ ss a2 100000; xB=+- r 0 ad2; yB=+- t ssd8 0; alfa=*/ cd4 1 14; dx0=tan ssd8 alfa; xC=+- xB 0 dx0; dx1=tan ad1 alfa; yF=+- yB ad1 0; xF=+- xB dx1 0; xE=+- xF dx0 0; yE=+- yF ssd8 0; dy2=+- yE 0 t; dy22=*/ dy2 1 2; dy3=*/ h 1 20; yD=+- t dy22 dy3; yP1=+- hd6 hd6 0; xP1=val wd6; dy5=*/ hd6 1 2; yP2=+- yF dy5 0; xP2=val wd4",
    path: "M l b Q xP1 yP1 xB yB L xC t L r yD L xE yE L xF yF Q xP2 yP2 l b Z",
  },
} satisfies Record<string, Preset>;

/** Arrows that bend and turn, and callouts with arrows. */
export const ARROWS: Readonly<Record<string, Preset>> = {
  ...DRAWN,
  upDownArrowCallout: { ...DRAWN.leftRightArrowCallout, transpose: true },
  curvedLeftArrow: { ...DRAWN.curvedRightArrow, mirror: "x" },
  curvedDownArrow: { ...DRAWN.curvedRightArrow, transpose: true },
  curvedUpArrow: { ...DRAWN.curvedRightArrow, transpose: true, mirror: "y" },
};
