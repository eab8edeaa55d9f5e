import { useEffect, useRef, useState } from "react";

/** Sound types of recorders, the best first. */
const TYPES = ["audio/webm;codecs=opus", "audio/ogg;codecs=opus", "audio/mp4", "audio/webm"];

/** A finished recording: its sound file, an address to listen to it, and its length in seconds. */
export interface Recorded {
  file: Blob;
  address: string;
  seconds: number;
}

/** A recorder: what it does now, how long it has recorded, and how loud it is (0 to 1). */
export interface Recorder {
  state: "ready" | "asking" | "recording" | "recorded";
  seconds: number;
  loudness: number;
  recorded: Recorded | undefined;
  /** Why nothing can be recorded, as a sentence. */
  refused: string | undefined;
  start: () => void;
  stop: () => void;
  /** Forgets the recording, for another one. */
  clear: () => void;
}

function refusalOf(error: unknown): string {
  const name = error instanceof DOMException ? error.name : "";
  if (name === "NotAllowedError")
    return "This page may not use the microphone. Allow it in the browser, then try again.";
  if (name === "NotFoundError") return "There is no microphone at this computer.";
  return "The microphone could not be opened. Another program may be using it.";
}

/** Records the microphone. Everything is let go when the component goes. */
export function useRecorder(): Recorder {
  const [state, setState] = useState<Recorder["state"]>("ready");
  const [seconds, setSeconds] = useState(0);
  const [loudness, setLoudness] = useState(0);
  const [recorded, setRecorded] = useState<Recorded>();
  const [refused, setRefused] = useState<string>();
  const stop = useRef<() => void>(() => undefined);
  const gone = useRef(false);
  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
      stop.current();
    };
  }, []);

  async function start() {
    setRefused(undefined);
    if (!navigator.mediaDevices) {
      setRefused("The browser gives a microphone to pages of this computer, or over HTTPS, only.");
      return;
    }
    setState("asking");
    let stream: MediaStream;
    try {
      stream = await navigator.mediaDevices.getUserMedia({ audio: { channelCount: 1, echoCancellation: false } });
    } catch (error) {
      setState("ready");
      setRefused(refusalOf(error));
      return;
    }
    const mimeType = TYPES.find((type) => MediaRecorder.isTypeSupported(type));
    const recorder = new MediaRecorder(stream, mimeType ? { mimeType } : {});
    const chunks: Blob[] = [];
    const begun = performance.now();
    const context = new AudioContext();
    const meter = context.createAnalyser();
    context.createMediaStreamSource(stream).connect(meter);
    const samples = new Float32Array(meter.fftSize);
    const timer = setInterval(() => {
      meter.getFloatTimeDomainData(samples);
      setLoudness(Math.min(1, Math.max(...samples.map(Math.abs))));
      setSeconds((performance.now() - begun) / 1000);
    }, 100);
    recorder.ondataavailable = ({ data }) => chunks.push(data);
    recorder.onstop = () => {
      clearInterval(timer);
      for (const track of stream.getTracks()) track.stop();
      void context.close();
      if (gone.current) return;
      const file = new Blob(chunks, { type: recorder.mimeType });
      setRecorded({ file, address: URL.createObjectURL(file), seconds: (performance.now() - begun) / 1000 });
      setLoudness(0);
      setState("recorded");
    };
    stop.current = () => recorder.state !== "inactive" && recorder.stop();
    if (gone.current) {
      for (const track of stream.getTracks()) track.stop();
      return;
    }
    recorder.start();
    setSeconds(0);
    setState("recording");
  }

  function clear() {
    if (recorded) URL.revokeObjectURL(recorded.address);
    setRecorded(undefined);
    setSeconds(0);
    setState("ready");
  }
  return { state, seconds, loudness, recorded, refused, start: () => void start(), stop: () => stop.current(), clear };
}
