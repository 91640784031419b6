/** Metres for a millimetre: sizes of chapter and table are in millimetres. */
export const MM = 0.001;
