import { type Deck, emptyDeck, newSlide, run, type Slide } from "@unitext/core/model";

/** What the deck says in each language: a title, two points, and how it is known. */
const SLIDES: readonly [language: string, name: string, title: string, points: readonly string[]][] = [
  [
    "zh-Hans",
    "Chinese, simplified",
    "潮汐为什么每天晚五十分钟",
    [
      "月球每天绕地球前进一段路，所以地球要多转“五十分钟”才能再次面对月球。",
      "北码头的最高水位是 4.6 米，比平均高潮高出 0.8 米（二〇二四年秋）。",
    ],
  ],
  [
    "zh-Hant",
    "Chinese, traditional",
    "潮汐為什麼每天晚五十分鐘",
    [
      "月球每天繞地球前進一段路，所以地球要多轉「五十分鐘」才能再次面對月球。",
      "北碼頭的最高水位是 4.6 公尺，比平均高潮高出 0.8 公尺。",
    ],
  ],
  [
    "ja",
    "Japanese",
    "潮はなぜ毎日五十分遅れるのか",
    [
      "月は一日のあいだに地球のまわりを少し進むので、地球はもう五十分まわらないと「同じ月」に向き合えません。",
      "北埠頭の最高水位は 4.6 メートルで、平均満潮より 0.8 メートル高いものでした。",
    ],
  ],
  [
    "ko",
    "Korean",
    "밀물은 왜 날마다 오십 분씩 늦어지는가",
    [
      "달은 하루 동안 지구 둘레를 조금 나아가므로, 지구는 오십 분을 더 돌아야 같은 달을 다시 마주 봅니다.",
      "북쪽 부두의 최고 수위는 4.6 m로, 평균 만조보다 0.8 m 높았습니다.",
    ],
  ],
  [
    "hi",
    "Hindi",
    "ज्वार हर दिन पचास मिनट देर से क्यों आता है",
    [
      "चंद्रमा एक दिन में पृथ्वी के चारों ओर थोड़ा आगे बढ़ता है, इसलिए पृथ्वी को पचास मिनट और घूमना पड़ता है।",
      "उत्तरी घाट पर सबसे ऊँचा जलस्तर 4.6 m था।",
    ],
  ],
  [
    "bn",
    "Bengali",
    "জোয়ার প্রতিদিন পঞ্চাশ মিনিট দেরিতে কেন আসে",
    [
      "চাঁদ এক দিনে পৃথিবীর চারদিকে কিছুটা এগিয়ে যায়, তাই পৃথিবীকে আরও পঞ্চাশ মিনিট ঘুরতে হয়।",
      "উত্তর ঘাটে সবচেয়ে উঁচু জলস্তর ছিল 4.6 m।",
    ],
  ],
  [
    "ta",
    "Tamil",
    "ஏற்றம் ஒவ்வொரு நாளும் ஐம்பது நிமிடம் தாமதமாவது ஏன்",
    [
      "நிலா ஒரு நாளில் பூமியைச் சுற்றி சிறிது தூரம் முன்னேறுகிறது, எனவே பூமி மேலும் ஐம்பது நிமிடம் சுழல வேண்டும்.",
      "வடக்குத் துறையில் மிக உயர்ந்த நீர்மட்டம் 4.6 m.",
    ],
  ],
  [
    "th",
    "Thai",
    "ทำไมน้ำขึ้นช้าลงวันละห้าสิบนาที",
    [
      "ดวงจันทร์เคลื่อนไปรอบโลกเล็กน้อยในแต่ละวัน โลกจึงต้องหมุนต่ออีกห้าสิบนาทีกว่าจะหันหน้าเข้าหาดวงจันทร์อีกครั้งหนึ่ง",
      "ระดับน้ำสูงสุดที่ท่าเรือเหนือคือ 4.6 m",
    ],
  ],
  [
    "vi",
    "Vietnamese",
    "Vì sao thủy triều mỗi ngày chậm năm mươi phút",
    [
      "Mỗi ngày Mặt Trăng đi thêm một đoạn quanh Trái Đất, nên Trái Đất phải quay thêm năm mươi phút nữa.",
      "Mực nước cao nhất ở bến Bắc là 4,6 m, cao hơn triều cao trung bình 0,8 m.",
    ],
  ],
  [
    "ar",
    "Arabic",
    "لماذا يتأخر المد خمسين دقيقة كل يوم",
    [
      "يتقدم القمر قليلا حول الأرض كل يوم، لذلك تحتاج الأرض إلى خمسين دقيقة أخرى لتواجهه من جديد.",
      "أعلى منسوب عند الرصيف الشمالي 4.6 m في سنة 2024.",
    ],
  ],
  [
    "he",
    "Hebrew",
    "מדוע הגאות מאחרת חמישים דקות בכל יום",
    [
      "הירח מתקדם מעט סביב כדור הארץ בכל יום, ולכן הארץ צריכה עוד חמישים דקות כדי לפנות אליו שוב.",
      "המפלס הגבוה ביותר ברציף הצפוני היה 4.6 m.",
    ],
  ],
];

/** Returns a deck that says the same in many scripts, one slide in each, for guests of the station. */
export function scriptsDeck(): Deck {
  const deck = emptyDeck("why-tides-are-late", "Why tides are late, in eleven languages");
  const text = (words: string, language?: string) => [
    run(words, undefined, undefined, language ? { language } : undefined),
  ];
  const opening: Slide = {
    ...newSlide("languages-opening", "opening"),
    elements: [
      { kind: "text", id: "lo1", slot: "title", text: [{ kind: "plain", level: 0, runs: text("Why tides are late") }] },
      {
        kind: "text",
        id: "lo2",
        slot: "subtitle",
        text: [{ kind: "plain", level: 0, runs: text("For guests of the Marram Bay Field Station") }],
      },
    ],
  };
  const slides = SLIDES.map(([language, name, title, points], nth): Slide => {
    const direction = language === "ar" || language === "he" ? { properties: { direction: "rtl" as const } } : {};
    return {
      ...newSlide(`languages-${language}`, "points"),
      elements: [
        {
          kind: "text",
          id: `l${nth}t`,
          slot: "title",
          text: [{ kind: "plain", level: 0, runs: text(title, language), ...direction }],
        },
        {
          kind: "text",
          id: `l${nth}b`,
          slot: "body",
          text: points.map((point) => ({ kind: "bullet", level: 0, runs: text(point, language), ...direction })),
        },
      ],
      notes: [{ kind: "plain", level: 0, runs: text(`This slide is in ${name}.`) }],
    };
  });
  return { ...deck, slides: [opening, ...slides] };
}
