export { FEATURES, type FeatureName, type Verdict } from "../shared/features";
export { carriedIn, entriesOf } from "./report";
export { TABLE } from "./table";
