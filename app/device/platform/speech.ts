/** Reads a line aloud if the browser has a voice. A new line replaces the current one. */
export function speak(text: string): void {
  if (!canSpeak()) return;
  window.speechSynthesis.cancel();
  const words = new SpeechSynthesisUtterance(text);
  words.lang = "en-GB";
  window.speechSynthesis.speak(words);
}

/** Maximum time per letter: a browser without voices never reports the end. */
const SLOWEST_MS_A_LETTER = 90;

/** Reads a line aloud, then calls `then`; immediately without a voice. Called once. */
export function speakThen(text: string, then: () => void): void {
  if (!canSpeak() || window.speechSynthesis.getVoices().length === 0) {
    then();
    return;
  }
  let gone = false;
  const once = () => {
    if (gone) return;
    gone = true;
    then();
  };
  window.speechSynthesis.cancel();
  const words = new SpeechSynthesisUtterance(text);
  words.lang = "en-GB";
  words.onend = once;
  words.onerror = once;
  window.speechSynthesis.speak(words);
  setTimeout(once, 800 + text.length * SLOWEST_MS_A_LETTER);
}

export function stopSpeaking(): void {
  if (canSpeak()) window.speechSynthesis.cancel();
}

export function canSpeak(): boolean {
  return (
    typeof window !== "undefined" &&
    "speechSynthesis" in window &&
    typeof SpeechSynthesisUtterance !== "undefined"
  );
}
