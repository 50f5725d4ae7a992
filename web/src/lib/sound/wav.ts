/** How many bytes come before the samples. */
export const headerBytes = 44;

/**
 * The head of a file of samples of 16 bits (Multimedia Programming Interface and Data Specifications 1.0, IBM and Microsoft, 1991:
 * RIFF WAVE, format tag 1).
 */
export function wavHeader(dataBytes: number, rate: number, channels: number): ArrayBuffer {
  const header = new ArrayBuffer(headerBytes);
  const view = new DataView(header);
  const text = (at: number, word: string) =>
    [...word].forEach((letter, i) => view.setUint8(at + i, letter.charCodeAt(0)));
  const frame = 2 * channels;
  text(0, "RIFF");
  view.setUint32(4, headerBytes - 8 + dataBytes, true);
  text(8, "WAVE");
  text(12, "fmt ");
  view.setUint32(16, 16, true);
  view.setUint16(20, 1, true);
  view.setUint16(22, channels, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * frame, true);
  view.setUint16(32, frame, true);
  view.setUint16(34, 16, true);
  text(36, "data");
  view.setUint32(40, dataBytes, true);
  return header;
}
