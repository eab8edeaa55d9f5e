export { mathmlTex } from "./mathml";
export { ommlTex } from "./omml";
export { mathmlOmml } from "./writeomml";
