// The station's field handbook: all places, numbers and events are made up.

export const CHAPTERS = [
  {
    title: "About this handbook",
    sections: [
      [
        "Who it is for",
        [
          "This handbook is for everybody who goes out for the station: the students of the course, the assistants who keep the records, and the guests who join them for a day. It says where the instruments stand, how they are read, and what to do when something is not as it should be. It does not teach the theory of tides or dunes, which the course does.",
          "Read the chapter on safety before your first day out. Read the sheet of a station before you go to it, and take a copy with you, because the signal at the bar is poor and the battery of a telephone does not like salt.",
        ],
      ],
      [
        "How it is kept",
        [
          "Once a year, after the winter storms, the assistants go through every sheet and compare it with what they find. Changes are entered at once and dated. A sheet that was not confirmed for two years is marked, and whoever goes there next is asked to confirm it.",
          "Mistakes are welcome news. Whoever finds one writes it into the log book in the hut, with the date and the page, and tells the keeper in the evening.",
        ],
      ],
    ],
  },
  {
    title: "Safety",
    sections: [
      [
        "Before you go",
        [
          "Nobody goes out alone, and nobody goes out without a tide table. The keeper writes down who leaves, where to, and when they will be back. If a group is not back an hour after that time, the keeper calls the harbour; there is no discussion about it and nobody is blamed for a false alarm.",
          "However, most accidents at Marram Bay have nothing to do with the sea. They happen on the ladder of the quay gauge, which is wet and has eleven rungs, and at the fence posts, which splinter. Gloves hang behind the door of the hut, and they are there to be worn.",
        ],
        [
          "Tide table of the day, with high water marked",
          "Radio on channel 8, tested at the door",
          "Gloves, two layers against wind, water",
          "First-aid bag from the shelf by the door",
        ],
      ],
      [
        "The bar at low water",
        [
          "The bar falls dry for about two hours around low water of springs, and for less than forty minutes at neaps. The way out is marked with eight withies. The water does not come from the front but from behind, through the gully that the map calls the Swash, and it comes without a sound.",
          "When the second withy from the shore stands in water, everybody turns back at once. A group that is cut off climbs the refuge at withy six, which has a bench, a flare and a blanket, and waits there for the next low water. It has been used twice in the history of the station, both times in fog.",
        ],
        [
          "Leave for the bar one hour before low water, not later",
          "Turn back at low water, whatever is left to do",
          "Watch the Swash, not the sea",
        ],
      ],
      [
        "Storms",
        [
          "The station closes when the forecast gives a mean wind of force 8 or more. Instruments that can be saved are taken in the day before: the two pressure sensors at the bar, the anemometer of the foredune, and the camera. Everything else stays, and its loss is entered in the log.",
          "After a storm nobody walks at the foot of the foredune for three days, because the scarp overhangs and falls without warning. The profile is measured from above, with the long staff.",
        ],
      ],
    ],
  },
  {
    title: "Water levels",
    sections: [
      [
        "What is measured",
        [
          "Six gauges record the height of the water above chart datum. Four of them are pressure sensors on the ground, one is a float in a stilling well at the quay, and one is a radar that looks down from the bridge. The float is the oldest and the one that all others are compared with; its record goes back to the year in which the station was founded.",
          "Each gauge gives a mean over one minute, every ten minutes. What lies between is thrown away by the instrument itself, because waves would fill the memory in a day.",
        ],
      ],
      [
        "From pressure to height",
        [
          "A pressure sensor feels the water above it and the air above the water. The air pressure is taken from the barometer in the hut and subtracted; what is left is divided by the weight of the water, which depends on its salt and warmth. Near the mouth of the river the density changes through the tide, and a correction from the table on the wall is used.",
        ],
        null,
        { formula: ["p − a", "ρ g"] },
      ],
      [
        "How good the numbers are",
        [
          "The staff at the quay is read by eye to one centimetre, on a calm day. Compared with it, the float is right to two centimetres, the radar to three, and the pressure sensors to five, if they have been levelled within the year. Nobody should write a third decimal into a report.",
          "A sensor that sinks into the mud shows a slow rise of the sea that is not there. For this reason the height of every sensor is measured against its bench mark in spring and in autumn, and the difference is shared out evenly over the months between.",
        ],
        null,
        { table: "accuracy" },
      ],
      [
        "Surges",
        [
          "A surge is the difference between the water level that came and the one that the tide alone would have brought. It is positive when wind and low air pressure pile the water up in the bay, and it can be negative after long easterly winds, when the harbour falls dry.",
          "The highest surge in the record is 1.9 m. It came at half tide, and the quay stayed dry; a surge of half that height at high water of springs would have flooded the lower street. This is why the report always gives both, the surge and the level.",
        ],
      ],
    ],
  },
  {
    title: "Dunes",
    sections: [
      [
        "Transects",
        [
          "Nine lines run from the low-water mark to the road behind the dunes. On each of them the height of the ground is measured every two metres, four times a year and after every storm. The ends of a line are marked by two posts; between them a tape is stretched, and the staff is put down at every second metre, whatever stands there.",
          "The first value of a line is taken twice, by two people who do not tell each other what they read. If they differ by more than two centimetres, the level is set up again.",
        ],
        [
          "Stretch the tape between the posts",
          "Set up the level where both ends can be seen",
          "Read every two metres, from the sea to the road",
          "Close the line on the bench mark of the road",
        ],
      ],
      [
        "What the plants tell",
        [
          "Marram grass grows where sand arrives, and it dies where sand stops arriving. A belt of dense, dark marram on the seaward slope means that the dune grows; grey tufts with bare roots mean that it is being eaten. Sea holly and spurge stand where the sand has been quiet for some years, and in the slacks behind them the creeping willow begins.",
          "For each metre of the line the cover of marram is estimated in steps of ten per cent. Two people estimate, and the mean is written down. After a week of practice most pairs agree within one step.",
        ],
      ],
      [
        "Fences and paths",
        [
          "The fences of the foredune catch sand while it is dry and are buried within two winters, which is what they are for. A buried fence is not dug out; a new one is put on top of it. Paths are led over the dune on boards and never in the direction of the wind, because a path along the wind becomes a gap, and a gap becomes a blowout.",
        ],
      ],
      [
        "The balance",
        [
          "From two profiles of the same line the volume that has come or gone is computed for every metre of coast. The foredune of Marram Bay gains about four cubic metres a metre in a quiet year and loses up to fifteen in one night of storm. Over twenty years the balance is close to nothing, but it is not the same sand, and it does not lie in the same place.",
        ],
        null,
        { table: "balance", picture: "dune-profile" },
      ],
    ],
  },
  {
    title: "Keeping the records",
    sections: [
      [
        "The log book",
        [
          "Everything that was done to an instrument stands in the log book: when it was opened, by whom, what was changed, and what the staff showed before and after. A value without a line in the log is not a measurement. The log is written with a pencil, because ink runs.",
        ],
      ],
      [
        "Names of files",
        [
          "A file is named after the station, the day on which it was read, and the person's letter: QUAY-2026-03-02-K. It is copied to both disks on the same evening and never changed afterwards. Corrections are made in a copy with the same name and the letter c at its end.",
        ],
      ],
      [
        "Checking",
        [
          "Every Monday the records of the week are drawn one above the other. A step, a gap or a line that is too smooth is looked into on the same day, while it is still known what happened. In particular, two gauges that differ by more than ten centimetres for an hour are compared with the staff before anything else is done.",
          "Gaps of less than one hour are filled by a straight line and marked. Longer gaps stay gaps, because an invented tide looks exactly like a real one and nobody will know in ten years.",
        ],
        [
          "Draw all gauges above each other",
          "Look for steps, gaps, and lines that are too smooth",
          "Compare with the staff",
          "Mark what was filled",
        ],
      ],
      [
        "Handing on",
        [
          "At the end of a month the checked records go to the archive, with one page that says what was changed and why. The quarterly report is made from the archive and from nothing else, so that every number in it can be found again.",
        ],
      ],
    ],
  },
];

export const TABLES = {
  accuracy: {
    caption: "Table 1: What the gauges can do",
    rows: [
      ["Gauge", "Kind", "Right to (cm)", "Levelled"],
      ["Quay", "float", "2", "every spring"],
      ["Bridge", "radar", "3", "every second year"],
      ["Bar, inner", "pressure", "5", "spring and autumn"],
      ["Bar, outer", "pressure", "5", "spring and autumn"],
      ["River mouth", "pressure", "6", "spring and autumn"],
      ["Slack", "pressure", "4", "every spring"],
    ],
  },
  balance: {
    caption: "Table 2: Sand that came and went, in cubic metres a metre of coast",
    rows: [
      ["Line", "2022", "2023", "2024", "2025"],
      ["Line 1", "3.8", "4.1", "−9.6", "2.2"],
      ["Line 3", "4.4", "3.9", "−14.8", "3.1"],
      ["Line 5", "2.9", "3.3", "−6.2", "4.0"],
      ["Line 7", "1.2", "0.8", "−3.1", "1.9"],
      ["Line 9", "0.4", "0.6", "−1.2", "0.7"],
    ],
  },
};

const KINDS = {
  float: {
    how: "Open the lid of the stilling well and let the float come to rest for two minutes. Read the staff beside it three times, half a minute apart, and write down the mean. Then read the display and the clock, and note the difference of both from yours.",
    wrong:
      "Weed in the pipe of the well makes the curve smooth and late. If high water comes more than ten minutes after that of the bridge, the pipe is cleaned with the long brush before the values are used.",
  },
  radar: {
    how: "The display is in the grey box at the southern pillar. Write down the level, the signal and the clock. Look over the rail: nothing may hang in the beam, and no boat may lie under it.",
    wrong:
      "Gulls sit on the arm and whiten the plate. A weak signal in fine weather nearly always means that the plate has to be wiped; the long mop is in the shed of the bridge.",
  },
  pressure: {
    how: "The sensor is read by cable from the post. Connect the reader, wait until the light is steady, and copy the memory. Compare the last value with the mark on the post, read by eye between two waves.",
    wrong:
      "A sensor that stands in mud answers slowly, and one whose cap is closed by barnacles does not answer at all. The cap is changed at every visit in summer, the old one goes into vinegar overnight.",
  },
  line: {
    how: "The line is measured from the sea to the road, every two metres, by three people: one at the level, one with the staff, one who writes. The cover of plants is estimated on the way back.",
    wrong:
      "The seaward post is lost in most winters. Its place is found again from the two posts on the road by the angles in the table of the hut, and a new one is driven in before the line is measured.",
  },
};

export const STATIONS = [
  [
    "Quay",
    "float",
    "at the head of the old quay, eleven rungs down",
    "at any tide, but not when the swell reaches the sixth rung",
    "Bolt in the third stone from the stairs, 5.42 m above chart datum",
    "The reference of all others",
  ],
  [
    "Bridge",
    "radar",
    "on the southern pillar of the river bridge",
    "at any time; the key hangs in the hut",
    "Brass plate on the pillar, 6.18 m",
    "Its beam is narrower than it looks",
  ],
  [
    "Bar, inner",
    "pressure",
    "at withy three, forty paces to the left",
    "around low water, for one hour",
    "Iron pin in the post, 1.07 m",
    "Sinks about two centimetres a year",
  ],
  [
    "Bar, outer",
    "pressure",
    "at withy seven, beyond the refuge",
    "around low water of springs only",
    "Iron pin in the post, 0.64 m",
    "Taken in before every storm",
  ],
  [
    "River mouth",
    "pressure",
    "under the third beacon, on the sand side",
    "from a boat, at slack water",
    "Mark on the beacon, 2.31 m",
    "Needs the correction for fresh water",
  ],
  [
    "Slack",
    "pressure",
    "in the tube between lines five and six",
    "at any time, on foot",
    "Lid of the tube, 4.86 m",
    "Fresh water, and frogs",
  ],
  [
    "Line 1",
    "line",
    "at the northern end, below the chapel",
    "at low water, with the road closed to riders",
    "Plate at the chapel wall, 8.03 m",
    "The steepest of all lines",
  ],
  [
    "Line 3",
    "line",
    "at the car park",
    "before nine in the morning in summer",
    "Bolt in the kerb, 5.77 m",
    "Crosses the board path",
  ],
  [
    "Line 5",
    "line",
    "through the large blowout",
    "never after rain: the slope slides",
    "Concrete block, 6.90 m",
    "Changes most of all",
  ],
  [
    "Line 7",
    "line",
    "at the second groyne",
    "at low water",
    "Bolt in the groyne, 3.34 m",
    "Terns nest here from May to July",
  ],
  [
    "Line 9",
    "line",
    "at the southern end, by the sluice",
    "at any tide",
    "Plate at the sluice, 4.12 m",
    "Hardly moves, and shows what a mistake looks like",
  ],
];

export function sheet([name, kind, where, when, mark, remark]) {
  const { how, wrong } = KINDS[kind];
  return {
    name,
    facts: [
      ["What", "This station"],
      ["Place", where],
      ["When", when],
      ["Bench mark", mark],
      ["Remark", remark],
    ],
    parts: [
      [
        "Way",
        `The station ${name} is ${where}. It is reached ${when}. The keeper marks the way on the map of the day, because the sand moves and the way with it. On the way back the group looks for its own footprints; where they are gone, the tide was there in between, and that is worth a line in the log.`,
      ],
      ["Reading", how],
      ["What goes wrong", wrong],
      [
        "Before you leave",
        `Close what you opened, look back once, and compare the bench mark with the sheet: ${mark}. Write the time of leaving into the log book. If the value differs from the last one by more than a hand's breadth without a reason that you can see, read it again, and say so in the evening.`,
      ],
    ],
  };
}
