/** Samples a second of the sound of a film; one channel. A frame has a whole number of them. */
export const SAMPLE_RATE = 48_000;

/** The loudness to which voices are brought, as root mean square of full scale (about −20 dB), and the highest peak (−1 dB). */
const [LOUDNESS, PEAK] = [0.1, 0.89];

/** A pause is quieter than this share of the loudest sample, and does not count for loudness. */
const QUIET = 0.02;

/** Brings a voice to the common loudness, so that recordings and spoken notes follow each other evenly. Changes `samples`. */
export function evenLoudness(samples: Int16Array): Int16Array {
  let peak = 0;
  for (const sample of samples) peak = Math.max(peak, Math.abs(sample));
  if (peak === 0) return samples;
  let [sum, count] = [0, 0];
  for (const sample of samples)
    if (Math.abs(sample) > QUIET * peak) {
      sum += sample * sample;
      count += 1;
    }
  const loud = Math.sqrt(sum / Math.max(1, count)) / 32768;
  const gain = Math.min(LOUDNESS / loud, (PEAK * 32767) / peak);
  for (let at = 0; at < samples.length; at++) samples[at] = Math.round((samples[at] ?? 0) * gain);
  return samples;
}

/**
 * Returns 16-bit samples of one channel as a .wav file. `rate` is in samples a second (RIFF, “Multimedia Programming Interface
 * and Data Specifications 1.0”).
 */
export function wavOf(samples: Int16Array, rate: number): Uint8Array {
  const bytes = new Uint8Array(44 + samples.byteLength);
  const view = new DataView(bytes.buffer);
  const name = (at: number, text: string) => bytes.set(new TextEncoder().encode(text), at);
  name(0, "RIFF");
  view.setUint32(4, 36 + samples.byteLength, true);
  name(8, "WAVEfmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  name(36, "data");
  view.setUint32(40, samples.byteLength, true);
  bytes.set(new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength), 44);
  return bytes;
}
