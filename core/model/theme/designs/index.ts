import { saltmarsh } from "./saltmarsh";
import { foreshore } from "./foreshore";
import { nightwatch } from "./nightwatch";
import { chalk } from "./chalk";
import { lighthouse } from "./lighthouse";
import { driftwood } from "./driftwood";
import { chartroom } from "./chartroom";
import { contour } from "./contour";
import { strata } from "./strata";
import { tidepool } from "./tidepool";
import { sandbar } from "./sandbar";
import { seawall } from "./seawall";
import { regatta } from "./regatta";
import { logbook } from "./logbook";
import { harbour } from "./harbour";
import { boathouse } from "./boathouse";
import { plain } from "./plain";
import type { DesignDescriptor } from "../design";
import type { DesignName } from "../theme";

/** The designs. To add one: a file here, its name in `DESIGN_NAMES`, and its line. */
export const DESIGNS: Readonly<Record<DesignName, DesignDescriptor>> = {
  saltmarsh,
  foreshore,
  nightwatch,
  chalk,
  lighthouse,
  driftwood,
  chartroom,
  contour,
  strata,
  tidepool,
  sandbar,
  seawall,
  regatta,
  logbook,
  harbour,
  boathouse,
  plain,
};
