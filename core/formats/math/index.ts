export { mathmlTex } from "./mathml";
export { ommlTex } from "./omml";
