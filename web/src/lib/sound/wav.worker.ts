import { renderOffline, type OfflineSound } from "./offline";

/** What is to be rendered. */
export interface WavJob {
  sounds: OfflineSound[];
  seconds: number;
  rate: number;
}

onmessage = ({ data: { sounds, seconds, rate } }: MessageEvent<WavJob>) => {
  for (const piece of renderOffline(sounds, seconds, rate))
    postMessage(piece, { transfer: [piece.buffer] });
  postMessage(null);
};
