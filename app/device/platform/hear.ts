interface Recognition {
  lang: string;
  continuous: boolean;
  interimResults: boolean;
  onresult: ((event: { results: { [i: number]: { [j: number]: { transcript: string } } } }) => void) | null;
  onerror: (() => void) | null;
  start: () => void;
  abort: () => void;
}

function recognition(): (new () => Recognition) | undefined {
  if (typeof window === "undefined") return undefined;
  const named = window as unknown as Record<string, new () => Recognition>;
  return named.SpeechRecognition ?? named.webkitSpeechRecognition;
}

/** True if this browser supports speech recognition; many need a network for it. */
export function canHear(): boolean {
  return recognition() !== undefined;
}

/** Listens for one utterance. Returns a function that stops it. */
export function hear(onWords: (words: string) => void, onFail: () => void): () => void {
  const Recogniser = recognition();
  if (!Recogniser) {
    onFail();
    return () => undefined;
  }
  const ear = new Recogniser();
  ear.lang = "en-GB";
  ear.continuous = false;
  ear.interimResults = false;
  ear.onresult = ({ results }) => onWords(results[0]?.[0]?.transcript ?? "");
  ear.onerror = onFail;
  ear.start();
  return () => ear.abort();
}
