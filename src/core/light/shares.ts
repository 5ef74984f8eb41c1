/** What of each pixel’s light comes from one group, 0…1 a channel, three values a pixel; over all groups they sum to one. */
export interface LightShare {
  name: string;
  /** Colour temperature its light has of itself, K. */
  kelvin: number;
  share: Float32Array;
}
