import { type Paragraph, paragraphText } from "@unitext/core/model";

const UNITS =
  "%|‰|per ?cent|percent|°C|°F|°|mm|cm|km/h|m/s|km²|m²|m³|km|kg|mg|kW|MW|kWh|GHz|MHz|kHz|Hz|[kMGT]i?B|[kMG]?bytes|hPa|ppm|knots?|metres?|meters?|kilometres?|kilometers?|centimetres?|centimeters?|millimetres?|tonnes?|litres?|liters?|hectares?|hours?|minutes?|seconds?|days?|weeks?|months?|years?|times|million|billion|Prozent|Meter|Kilometer|Zentimeter|Stunden|Minuten|Sekunden|Tage|Wochen|Monate|Jahre|Millionen|Mal|por ciento|metros|kilómetros|horas|minutos|segundos|días|semanas|meses|años|millones|veces|pour cent|mètres|kilomètres|heures|minutes|secondes|jours|semaines|mois|ans|millions|fois|m|t|g|s|h|l|€|\\$|£";
const FIGURE = new RegExp(
  `(?<![\\p{L}\\d.,/_-])([+−-]?(?:[€$£] ?)?\\d(?:[\\d.,  ]*\\d)?(?:[  ]?(?:${UNITS}))?)(?![\\p{L}\\d_/-])`,
  "gu",
);
const HAS_UNIT = new RegExp(`^[+−-]?[€$£]|(?:${UNITS})$`, "u");
/**
 * What a number follows when it is what its clause says: a verb that measures, with at most two words between. After
 * “about”, “at most” or “not”, a number alone would say something else.
 */
const SAID_BY_VERB =
  /(?:^|[\s(])(?:is|are|was|were|reach(?:es|ed)?|rose (?:by|to)|rises (?:by|to)|fell (?:by|to)|falls (?:by|to)|grew (?:by|to)|grows (?:by|to)|measures?d?|weigh(?:s|ed)?|takes?|took|lasts?|lasted|costs?|holds?|held|equals?|total(?:s|led)?|averages?d?|amount(?:s|ed)? to|covers?|covered|lost|gained|ist|sind|war|waren|beträgt|betrug|erreicht|erreichte|dauert|dauerte|kostet|misst|wiegt|es|son|fue|alcanza|alcanzó|dura|duró|mide|pesa|cuesta|est|sont|était|atteint|dure|mesure|pèse|coûte)\s+(?:(?:a|the|just|exactly|total of|genau|exactamente|exactement)\s+)?$/iu;
/** Follows a number that is the subject: “60 % of the sand …”. */
const OF = /^\s+(?:of|der|des|von|de|del|du)\s/u;

/** The longest key figure in characters. */
const LONGEST = 14;

/**
 * Returns the only number with a unit in a point, such as “1.9 m” in “The highest surge in the record is 1.9 m”; undefined
 * where there are several numbers, or where the number is not what the point says.
 */
export function keyFigureIn(point: Paragraph): string | undefined {
  if (point.runs.some(({ marks }) => marks?.includes("code") || marks?.includes("formula"))) return undefined;
  const text = paragraphText(point);
  const found = [...text.matchAll(FIGURE)];
  const [only] = found;
  const figure = only?.[1]?.trim();
  const numbers = text.match(/\d+(?:[.,]\d+)*/g) ?? [];
  if (!only || !figure || found.length !== 1 || figure.length > LONGEST || !HAS_UNIT.test(figure)) return undefined;
  const inFigure = figure.match(/\d+(?:[.,]\d+)*/g) ?? [];
  if (numbers.length !== inFigure.length) return undefined;
  const isSubject = only.index === 0 && OF.test(text.slice(figure.length));
  return isSubject || SAID_BY_VERB.test(text.slice(0, only.index)) ? figure : undefined;
}
