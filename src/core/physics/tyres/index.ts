export { dropAt, type FrameOnTyres, settleFrame, type TyreSupport } from "./frame";
export { sagMetres, tyreStiffness } from "./stiffness";
export { pressureAtTemperature, STANDARD_ATMOSPHERE_PASCALS } from "./temperature";
export { predictTipChange, type TipChange } from "./tip-change";
