import { ELLIPSE, type Preset, RECT } from "./preset";

const BUTTON = "dx2=*/ ss 3 8; g9=+- vc 0 dx2; g10=+- vc dx2 0; g11=+- hc 0 dx2; g12=+- hc dx2 0; g13=*/ ss 3 4";

/** Buttons and symbols. */
export const SIGNS: Readonly<Record<string, Preset>> = {
  actionButtonBlank: { guides: `${BUTTON}`, path: `[s0]${RECT}|[f0]${RECT}` },
  actionButtonBackPrevious: { guides: `${BUTTON}`, path: `[s0]${RECT}|[dk]M g11 vc L g12 g9 L g12 g10 Z|[f0]${RECT}` },
  actionButtonForwardNext: { guides: `${BUTTON}`, path: `[s0]${RECT}|[dk]M g12 vc L g11 g9 L g11 g10 Z|[f0]${RECT}` },
  actionButtonBeginning: {
    guides: `${BUTTON}; g14=*/ g13 1 8; g15=*/ g13 1 4; g16=+- g11 g14 0; g17=+- g11 g15 0`,
    path: `[s0]${RECT}|[dk]M g17 vc L g12 g9 L g12 g10 Z M g16 g9 L g11 g9 L g11 g10 L g16 g10 Z|[f0]${RECT}`,
  },
  actionButtonEnd: {
    guides: `${BUTTON}; g14=*/ g13 3 4; g15=*/ g13 7 8; g16=+- g11 g14 0; g17=+- g11 g15 0`,
    path: `[s0]${RECT}|[dk]M g16 vc L g11 g9 L g11 g10 Z M g17 g9 L g12 g9 L g12 g10 L g17 g10 Z|[f0]${RECT}`,
  },
  actionButtonDocument: {
    guides: `${BUTTON}; dx1=*/ ss 9 32; g11=+- hc 0 dx1; g12=+- hc dx1 0; g16=*/ ss 3 16; g14=+- g12 0 g16; g15=+- g9 g16 0`,
    path: `[s0]${RECT}|[lt]M g11 g9 L g14 g9 L g12 g15 L g12 g10 L g11 g10 Z|[dk]M g14 g9 L g14 g15 L g12 g15 Z|[f0]${RECT}`,
  },
  actionButtonReturn: {
    guides: `${BUTTON}; g14=*/ g13 7 8; g15=*/ g13 3 4; g16=*/ g13 5 8; g17=*/ g13 3 8; g18=*/ g13 1 4; g19=+- g9 g15 0; g20=+- g9 g16 0; g21=+- g9 g18 0; g22=+- g11 g14 0; g23=+- g11 g15 0; g24=+- g11 g16 0; g25=+- g11 g17 0; g26=+- g11 g18 0; g27=*/ g13 1 8`,
    path: `[s0]${RECT}|[dk]M g12 g21 L g23 g9 L hc g21 L g24 g21 L g24 g20 A g27 g27 0 cd4 L g25 g19 A g27 g27 cd4 cd4 L g26 g21 L g11 g21 L g11 g20 A g17 g17 cd2 -5400000 L hc g10 A g17 g17 cd4 -5400000 L g22 g21 Z|[f0]${RECT}`,
  },
  actionButtonHome: {
    guides: `${BUTTON}; g14=*/ g13 1 16; g15=*/ g13 1 8; g16=*/ g13 3 16; g17=*/ g13 5 16; g18=*/ g13 7 16; g19=*/ g13 9 16; g20=*/ g13 11 16; g21=*/ g13 3 4; g22=*/ g13 13 16; g23=*/ g13 7 8; g24=+- g9 g14 0; g25=+- g9 g16 0; g26=+- g9 g17 0; g27=+- g9 g21 0; g28=+- g11 g15 0; g29=+- g11 g18 0; g30=+- g11 g19 0; g31=+- g11 g20 0; g32=+- g11 g22 0; g33=+- g11 g23 0`,
    path: `[s0]${RECT}|[dk]M g32 g26 L g32 g24 L g31 g24 L g31 g25 Z M g28 vc L g28 g10 L g33 g10 L g33 vc Z|[dk]M hc g9 L g11 vc L g12 vc Z|[lt]M g29 g27 L g30 g27 L g30 g10 L g29 g10 Z|[f0]${RECT}`,
  },
  actionButtonInformation: {
    guides: `${BUTTON}; g14=*/ g13 1 32; g17=*/ g13 5 16; g18=*/ g13 3 8; g19=*/ g13 13 32; g20=*/ g13 19 32; g22=*/ g13 11 16; g23=*/ g13 13 16; g24=*/ g13 7 8; g25=+- g9 g14 0; g28=+- g9 g17 0; g29=+- g9 g18 0; g30=+- g9 g23 0; g31=+- g9 g24 0; g32=+- g11 g17 0; g34=+- g11 g19 0; g35=+- g11 g20 0; g37=+- g11 g22 0; g38=*/ g13 3 32`,
    path: `[s0]${RECT}|[dk]M hc g9 A dx2 dx2 3cd4 21600000 Z|[lt]M hc g25 A g38 g38 3cd4 21600000 Z M g32 g28 L g32 g29 L g34 g29 L g34 g30 L g32 g30 L g32 g31 L g37 g31 L g37 g30 L g35 g30 L g35 g28 Z|[f0]${RECT}`,
  },
  actionButtonHelp: {
    guides: `${BUTTON}; g14=*/ g13 1 7; g15=*/ g13 3 14; g16=*/ g13 2 7; g19=*/ g13 3 7; g20=*/ g13 4 7; g21=*/ g13 17 28; g23=*/ g13 21 28; g24=*/ g13 11 14; g27=+- g9 g16 0; g29=+- g9 g21 0; g30=+- g9 g23 0; g31=+- g9 g24 0; g33=+- g11 g15 0; g36=+- g11 g19 0; g37=+- g11 g20 0; g41=*/ g13 1 14; g42=*/ g13 3 28`,
    path: `[s0]${RECT}|[dk]M g33 g27 A g16 g16 cd2 cd2 A g14 g15 0 cd4 A g41 g42 3cd4 -5400000 L g37 g30 L g36 g30 L g36 g29 A g14 g15 cd2 cd4 A g41 g42 cd4 -5400000 A g14 g14 0 -10800000 Z M hc g31 A g42 g42 3cd4 21600000 Z|[f0]${RECT}`,
  },
  actionButtonSound: {
    guides: `${BUTTON}; g14=*/ g13 1 8; g15=*/ g13 5 16; g16=*/ g13 5 8; g17=*/ g13 11 16; g18=*/ g13 3 4; g19=*/ g13 7 8; g20=+- g9 g14 0; g21=+- g9 g15 0; g22=+- g9 g17 0; g23=+- g9 g19 0; g24=+- g11 g15 0; g25=+- g11 g16 0; g26=+- g11 g18 0`,
    path: `[s0]${RECT}|[dk]M g11 g21 L g24 g21 L g25 g9 L g25 g10 L g24 g22 L g11 g22 Z|[f0]M g26 g21 L g12 g20 M g26 vc L g12 vc M g26 g22 L g12 g23|[f0]${RECT}`,
  },
  actionButtonMovie: {
    guides: `${BUTTON}; x1=*/ g13 1455 21600; g31=+- g11 x1 0; x2=*/ g13 1905 21600; g32=+- g11 x2 0; x3=*/ g13 2325 21600; g33=+- g11 x3 0; x4=*/ g13 16155 21600; g34=+- g11 x4 0; x5=*/ g13 17010 21600; g35=+- g11 x5 0; x6=*/ g13 19335 21600; g36=+- g11 x6 0; x7=*/ g13 19725 21600; g37=+- g11 x7 0; x8=*/ g13 20595 21600; g38=+- g11 x8 0; y1=*/ g13 5280 21600; g39=+- g9 y1 0; y2=*/ g13 5730 21600; g40=+- g9 y2 0; y3=*/ g13 6630 21600; g41=+- g9 y3 0; y4=*/ g13 7492 21600; g42=+- g9 y4 0; y5=*/ g13 9067 21600; g43=+- g9 y5 0; y6=*/ g13 9555 21600; g44=+- g9 y6 0; y7=*/ g13 13342 21600; g45=+- g9 y7 0; y8=*/ g13 14580 21600; g46=+- g9 y8 0; y9=*/ g13 15592 21600; g47=+- g9 y9 0`,
    path: `[s0]${RECT}|[dk]M g11 g39 L g11 g44 L g31 g44 L g32 g43 L g33 g43 L g33 g47 L g35 g47 L g35 g45 L g36 g45 L g38 g46 L g12 g46 L g12 g41 L g38 g41 L g37 g42 L g35 g42 L g35 g41 L g34 g40 L g32 g40 L g31 g39 Z|[f0]${RECT}`,
  },
  lineInv: { path: "[f0]M l b L r t" },
  nonIsoscelesTrapezoid: {
    adjust: "adj1=25000 adj2=25000",
    guides:
      "maxAdj=*/ 50000 w ss; a1=pin 0 adj1 maxAdj; a2=pin 0 adj2 maxAdj; x2=*/ ss a1 100000; dx3=*/ ss a2 100000; x3=+- r 0 dx3; il=*/ wd3 a1 maxAdj; adjm=max a1 a2; it=*/ hd3 adjm maxAdj; irt=*/ wd3 a2 maxAdj; ir=+- r 0 irt",
    path: "M l b L x2 t L x3 t L r b Z",
    text: "il it ir b",
  },
  pieWedge: {
    guides: "g1=cos w 13500000; g2=sin h 13500000; x1=+- r g1 0; y1=+- b g2 0",
    path: "M l b A w h cd2 cd4 L r b Z",
    text: "x1 y1 r b",
  },
  noSmoking: {
    adjust: "adj=18750",
    guides:
      "a=pin 0 adj 50000; dr=*/ ss a 100000; iwd2=+- wd2 0 dr; ihd2=+- hd2 0 dr; ang=at2 w h; ct=cos ihd2 ang; st=sin iwd2 ang; m=mod ct st 0; n=*/ iwd2 ihd2 m; drd2=*/ dr 1 2; dang=at2 n drd2; 2dang=*/ dang 2 1; swAng=+- -10800000 2dang 0; stAng1=+- ang 0 dang; stAng2=+- stAng1 0 cd2; ct1=cos ihd2 stAng1; st1=sin iwd2 stAng1; m1=mod ct1 st1 0; n1=*/ iwd2 ihd2 m1; dx1=cos n1 stAng1; dy1=sin n1 stAng1; x1=+- hc dx1 0; y1=+- vc dy1 0; x2=+- hc 0 dx1; y2=+- vc 0 dy1; idx=cos wd2 2700000; idy=sin hd2 2700000; il=+- hc 0 idx; ir=+- hc idx 0; it=+- vc 0 idy; ib=+- vc idy 0",
    path: `${ELLIPSE} M x1 y1 A iwd2 ihd2 stAng1 swAng Z M x2 y2 A iwd2 ihd2 stAng2 swAng Z`,
    text: "il it ir ib",
  },
  sun: {
    adjust: "adj=25000",
    guides:
      "a=pin 12500 adj 46875; g0=+- 50000 0 a; g1=*/ g0 30274 32768; g2=*/ g0 12540 32768; g5=+- 50000 0 g1; g6=+- 50000 0 g2; g7=*/ g0 23170 32768; g8=+- 50000 g7 0; g9=+- 50000 0 g7; g10=*/ g5 3 4; g11=*/ g6 3 4; g12=+- g10 3662 0; g13=+- g11 3662 0; g14=+- g11 12500 0; g15=+- 100000 0 g10; g16=+- 100000 0 g12; g17=+- 100000 0 g13; g18=+- 100000 0 g14; ox1=*/ w 18436 21600; oy1=*/ h 3163 21600; ox2=*/ w 3163 21600; oy2=*/ h 18436 21600; x8=*/ w g8 100000; x9=*/ w g9 100000; x10=*/ w g10 100000; x12=*/ w g12 100000; x13=*/ w g13 100000; x14=*/ w g14 100000; x15=*/ w g15 100000; x16=*/ w g16 100000; x17=*/ w g17 100000; x18=*/ w g18 100000; y8=*/ h g8 100000; y9=*/ h g9 100000; y10=*/ h g10 100000; y12=*/ h g12 100000; y13=*/ h g13 100000; y14=*/ h g14 100000; y15=*/ h g15 100000; y16=*/ h g16 100000; y17=*/ h g17 100000; y18=*/ h g18 100000; x19=*/ w a 100000; wR=*/ w g0 100000; hR=*/ h g0 100000",
    path: "M r vc L x15 y18 L x15 y14 Z M ox1 oy1 L x16 y13 L x17 y12 Z M hc t L x18 y10 L x14 y10 Z M ox2 oy1 L x13 y12 L x12 y13 Z M l vc L x10 y14 L x10 y18 Z M ox2 oy2 L x12 y17 L x13 y16 Z M hc b L x14 y15 L x18 y15 Z M ox1 oy2 L x17 y16 L x16 y17 Z M x19 vc A wR hR cd2 21600000 Z",
    text: "x9 y9 x8 y8",
  },
  moon: {
    adjust: "adj=50000",
    guides:
      "a=pin 0 adj 87500; g0=*/ ss a 100000; g0w=*/ g0 w ss; g1=+- ss 0 g0; g2=*/ g0 g0 g1; g3=*/ ss ss g1; g4=*/ g3 2 1; g5=+- g4 0 g2; g6=+- g5 0 g0; g6w=*/ g6 w ss; g7=*/ g5 1 2; g8=+- g7 0 g0; dy1=*/ g8 hd2 ss; g12=*/ g0 9598 32768; g12w=*/ g12 w ss; g13=+- ss 0 g12; q1=*/ ss ss 1; q2=*/ g13 g13 1; q3=+- q1 0 q2; q4=sqrt q3; dy4=*/ q4 hd2 ss; g15h=+- vc 0 dy4; g16h=+- vc dy4 0; g17w=+- g6w 0 g0w; g18w=*/ g17w 1 2; dx2p=+- g0w g18w w; dx2=*/ dx2p -1 1; dy2=*/ hd2 -1 1; stAng1=at2 dx2 dy2; enAngp1=at2 dx2 hd2; enAng1=+- enAngp1 0 21600000; swAng1=+- enAng1 0 stAng1",
    path: "M r b A w hd2 cd4 cd2 A g18w dy1 stAng1 swAng1 Z",
    text: "g12w g15h g0w g16h",
  },
  irregularSeal1: {
    guides: "il=*/ w 4627 21600; it=*/ h 6320 21600; ir=*/ w 16702 21600; ib=*/ h 13937 21600",
    path: "[w=21600 h=21600]M 10800 5800 L 14522 0 L 14155 5325 L 18380 4457 L 16702 7315 L 21097 8137 L 17607 10475 L 21600 13290 L 16837 12942 L 18145 18095 L 14020 14457 L 13247 19737 L 10532 14935 L 8485 21600 L 7715 15627 L 4762 17617 L 5667 13937 L 135 14587 L 3722 11775 L 0 8615 L 4627 7617 L 370 2295 L 7312 6320 L 8352 2295 Z",
    text: "il it ir ib",
  },
  irregularSeal2: {
    guides: "il=*/ w 5372 21600; it=*/ h 6382 21600; ir=*/ w 14640 21600; ib=*/ h 15935 21600",
    path: "[w=21600 h=21600]M 11462 4342 L 14790 0 L 14525 5777 L 18007 3172 L 16380 6532 L 21600 6645 L 16985 9402 L 18270 11290 L 16380 12310 L 18877 15632 L 14640 14350 L 14942 17370 L 12180 15935 L 11612 18842 L 9872 17370 L 8700 19712 L 7527 18125 L 4917 21600 L 4805 18240 L 1285 17825 L 3330 15370 L 0 12877 L 3935 11592 L 1172 8270 L 5372 7817 L 4502 3625 L 8550 6382 L 9722 1887 Z",
    text: "il it ir ib",
  },
  curvedConnector4: {
    adjust: "adj1=50000 adj2=50000",
    guides:
      "x2=*/ w adj1 100000; x1=+/ l x2 2; x3=+/ r x2 2; x4=+/ x2 x3 2; x5=+/ x3 r 2; y4=*/ h adj2 100000; y1=+/ t y4 2; y2=+/ t y1 2; y3=+/ y1 y4 2; y5=+/ b y4 2",
    path: "[f0]M l t C x1 t x2 y2 x2 y1 C x2 y3 x4 y4 x3 y4 C x5 y4 r y5 r b",
  },
  curvedConnector5: {
    adjust: "adj1=50000 adj2=50000 adj3=50000",
    guides:
      "x3=*/ w adj1 100000; x6=*/ w adj3 100000; x1=+/ x3 x6 2; x2=+/ l x3 2; x4=+/ x3 x1 2; x5=+/ x6 x1 2; x7=+/ x6 r 2; y4=*/ h adj2 100000; y1=+/ t y4 2; y2=+/ t y1 2; y3=+/ y1 y4 2; y5=+/ b y4 2; y6=+/ y5 y4 2; y7=+/ y5 b 2",
    path: "[f0]M l t C x2 t x3 y2 x3 y1 C x3 y3 x4 y4 x1 y4 C x5 y4 x6 y6 x6 y5 C x6 y7 x7 b r b",
  },
  flowChartMagneticTape: {
    guides:
      "idx=cos wd2 2700000; idy=sin hd2 2700000; il=+- hc 0 idx; ir=+- hc idx 0; it=+- vc 0 idy; ib=+- vc idy 0; ang1=at2 w h",
    path: "M hc b A wd2 hd2 cd4 cd4 A wd2 hd2 cd2 cd4 A wd2 hd2 3cd4 cd4 A wd2 hd2 0 ang1 L r ib L r b Z",
    text: "il it ir ib",
  },
  funnel: {
    guides:
      "d=*/ ss 1 20; rw2=+- wd2 0 d; rh2=+- hd4 0 d; t1=cos wd2 480000; t2=sin hd4 480000; da=at2 t1 t2; 2da=*/ da 2 1; stAng1=+- cd2 0 da; swAng1=+- cd2 2da 0; swAng3=+- cd2 0 2da; rw3=*/ wd2 1 4; rh3=*/ hd4 1 4; ct1=cos hd4 stAng1; st1=sin wd2 stAng1; m1=mod ct1 st1 0; n1=*/ wd2 hd4 m1; dx1=cos n1 stAng1; dy1=sin n1 stAng1; x1=+- hc dx1 0; y1=+- hd4 dy1 0; ct3=cos rh3 da; st3=sin rw3 da; m3=mod ct3 st3 0; n3=*/ rw3 rh3 m3; dx3=cos n3 da; dy3=sin n3 da; x3=+- hc dx3 0; vc3=+- b 0 rh3; y3=+- vc3 dy3 0; x2=+- wd2 0 rw2",
    path: "M x1 y1 A wd2 hd4 stAng1 swAng1 L x3 y3 A rw3 rh3 da swAng3 Z M x2 hd4 A rw2 rh2 cd2 -21600000 Z",
  },
  mathMultiply: {
    adjust: "adj1=23520",
    guides:
      "a1=pin 0 adj1 51965; th=*/ ss a1 100000; a=at2 w h; sa=sin 1 a; ca=cos 1 a; ta=tan 1 a; dl=mod w h 0; rw=*/ dl 51965 100000; lM=+- dl 0 rw; xM=*/ ca lM 2; yM=*/ sa lM 2; dxAM=*/ sa th 2; dyAM=*/ ca th 2; xA=+- xM 0 dxAM; yA=+- yM dyAM 0; xB=+- xM dxAM 0; yB=+- yM 0 dyAM; xBC=+- hc 0 xB; yBC=*/ xBC ta 1; yC=+- yBC yB 0; xD=+- r 0 xB; xE=+- r 0 xA; yFE=+- vc 0 yA; xFE=*/ yFE 1 ta; xF=+- xE 0 xFE; xL=+- xA xFE 0; yG=+- b 0 yA; yH=+- b 0 yB; yI=+- b 0 yC",
    path: "M xA yA L xB yB L hc yC L xD yB L xE yA L xF vc L xE yG L xD yH L hc yI L xB yH L xA yG L xL vc Z",
    text: "xA yB xE yH",
  },
  mathNotEqual: {
    adjust: "adj1=23520 adj2=6600000 adj3=11760",
    guides:
      "a1=pin 0 adj1 50000; crAng=pin 4200000 adj2 6600000; 2a1=*/ a1 2 1; maxAdj3=+- 100000 0 2a1; a3=pin 0 adj3 maxAdj3; dy1=*/ h a1 100000; dy2=*/ h a3 200000; dx1=*/ w 73490 200000; x1=+- hc 0 dx1; x8=+- hc dx1 0; y2=+- vc 0 dy2; y3=+- vc dy2 0; y1=+- y2 0 dy1; y4=+- y3 dy1 0; cadj2=+- crAng 0 cd4; xadj2=tan hd2 cadj2; len=mod xadj2 hd2 0; bhw=*/ len dy1 hd2; bhw2=*/ bhw 1 2; x7=+- hc xadj2 bhw2; dx67=*/ xadj2 y1 hd2; x6=+- x7 0 dx67; dx57=*/ xadj2 y2 hd2; x5=+- x7 0 dx57; dx47=*/ xadj2 y3 hd2; x4=+- x7 0 dx47; dx37=*/ xadj2 y4 hd2; x3=+- x7 0 dx37; rx7=+- x7 bhw 0; rx6=+- x6 bhw 0; rx5=+- x5 bhw 0; rx4=+- x4 bhw 0; rx3=+- x3 bhw 0; dx7=*/ dy1 hd2 len; rxt=+- x7 dx7 0; lxt=+- rx7 0 dx7; rx=?: cadj2 rxt rx7; lx=?: cadj2 x7 lxt; dy3=*/ dy1 xadj2 len; dy4=+- 0 0 dy3; ry=?: cadj2 dy3 t; ly=?: cadj2 t dy4; dlx=+- w 0 rx; drx=+- w 0 lx; dly=+- h 0 ry; dry=+- h 0 ly",
    path: "M x1 y1 L x6 y1 L lx ly L rx ry L rx6 y1 L x8 y1 L x8 y2 L rx5 y2 L rx4 y3 L x8 y3 L x8 y4 L rx3 y4 L drx dry L dlx dly L x3 y4 L x1 y4 L x1 y3 L x4 y3 L x5 y2 L x1 y2 Z",
    text: "x1 y1 x8 y4",
  },
  cornerTabs: {
    guides: "md=mod w h 0; dx=*/ 1 md 20; y1=+- b 0 dx; x1=+- r 0 dx",
    path: "M l t L dx t L l dx Z M l y1 L dx b L l b Z M x1 t L r t L r dx Z M r y1 L r b L x1 b Z",
    text: "dx dx x1 y1",
  },
  squareTabs: {
    guides: "md=mod w h 0; dx=*/ 1 md 20; y1=+- b 0 dx; x1=+- r 0 dx",
    path: "M l t L dx t L dx dx L l dx Z M l y1 L dx y1 L dx b L l b Z M x1 t L r t L r dx L x1 dx Z M x1 y1 L r y1 L r b L x1 b Z",
    text: "dx dx x1 y1",
  },
  plaqueTabs: {
    guides: "md=mod w h 0; dx=*/ 1 md 20; y1=+- b 0 dx; x1=+- r 0 dx",
    path: "M l t L dx t A dx dx 0 cd4 Z M l y1 A dx dx 3cd4 cd4 L l b Z M r t L r dx A dx dx cd4 cd4 Z M x1 b A dx dx cd2 cd4 L r b Z",
    text: "dx dx x1 y1",
  },
  chartX: { path: "[s0 w=10 h=10]M 0 0 L 0 10 L 10 10 L 10 0 Z|[f0 w=10 h=10]M 0 0 L 10 10 M 0 10 L 10 0" },
  chartStar: {
    path: "[s0 w=10 h=10]M 0 0 L 0 10 L 10 10 L 10 0 Z|[f0 w=10 h=10]M 0 0 L 10 10 M 0 10 L 10 0 M 5 0 L 5 10",
  },
  chartPlus: { path: "[s0 w=10 h=10]M 0 0 L 0 10 L 10 10 L 10 0 Z|[f0 w=10 h=10]M 5 0 L 5 10 M 0 5 L 10 5" },
};
