/** A second-order filter section; a0 is 1. */
export interface Biquad {
  b0: number;
  b1: number;
  b2: number;
  a1: number;
  a2: number;
}

/**
 * The two stages of K-weighting: a shelf for the head, then a high pass. ITU-R BS.1770-4, annex 1, tables 1 and 2, gives them
 * for 48 kHz; for other rates they are designed from the analogue prototypes that give those tables by the bilinear transform
 * (the parameters are those of De Man, “Evaluation of Implementations of the EBU R128 Loudness Measurement”, AES 2018;
 * written down from memory and checked against the tables in the test).
 * @param rate samples per second
 */
export const kWeighting = (rate: number): readonly [Biquad, Biquad] => [shelf(rate), highPass(rate)];

function shelf(rate: number): Biquad {
  const k = Math.tan((Math.PI * 1681.974450955533) / rate);
  const q = 0.7071752369554196;
  const high = 10 ** (3.999843853973347 / 20);
  const middle = high ** 0.4996667741545416;
  const a0 = 1 + k / q + k * k;
  return {
    b0: (high + (middle * k) / q + k * k) / a0,
    b1: (2 * (k * k - high)) / a0,
    b2: (high - (middle * k) / q + k * k) / a0,
    a1: (2 * (k * k - 1)) / a0,
    a2: (1 - k / q + k * k) / a0,
  };
}

function highPass(rate: number): Biquad {
  const k = Math.tan((Math.PI * 38.13547087602444) / rate);
  const q = 0.5003270373238773;
  const a0 = 1 + k / q + k * k;
  return { b0: 1, b1: -2, b2: 1, a1: (2 * (k * k - 1)) / a0, a2: (1 - k / q + k * k) / a0 };
}
