/** Standard atmosphere at sea level (published: ISO 2533, from memory). */
export const STANDARD_ATMOSPHERE_PASCALS = 101_325;

/**
 * The gauge pressure the same air shows at another temperature. Physics: ideal gas at constant volume, absolute temperatures.
 * It relates readings of different days or warm tyres; cold readings of one morning are compared as read.
 *
 * @example 12.0 psi set at 60 °F reads 13.8 psi at 95 °F at sea level.
 */
export function pressureAtTemperature(args: {
  pressurePascals: number;
  fromKelvin: number;
  toKelvin: number;
  atmospherePascals?: number;
}): number {
  const { pressurePascals, fromKelvin, toKelvin, atmospherePascals = STANDARD_ATMOSPHERE_PASCALS } = args;
  return ((pressurePascals + atmospherePascals) * toKelvin) / fromKelvin - atmospherePascals;
}
