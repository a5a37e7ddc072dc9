/** Emergency codes: hijack, radio failure, emergency. Source: ICAO Annex 10, Doc 8168 (from memory). */
const EMERGENCY_CODES: Record<string, string> = {
  "7500": "unlawful interference",
  "7600": "radio failure",
  "7700": "emergency",
};

/** Fault in a transponder code; undefined if it is valid. Source: ICAO Annex 10 (four digits, 0 to 7). */
export function squawkFault(code: string): string | undefined {
  const text = code.trim();
  if (!/^\d{4}$/.test(text)) return "Enter four digits.";
  if (/[89]/.test(text)) return "Use digits from 0 to 7 only.";
  const means = EMERGENCY_CODES[text];
  return means ? `${text} means ${means}. Set it only in a real emergency.` : undefined;
}

/**
 * Fault in an airband frequency in MHz as dialled; undefined if it is valid. Channels are every 25 kHz, ending in 00, 25, 50, 75,
 * or 8.33 kHz with the endings 05, 10, 15, 30, 35, 40, 55, 60, 65, 80, 85, 90. Range: 118 up to but excluding 137 MHz. Source:
 * ICAO Annex 10, Volume V (from memory).
 */
export function frequencyFault(text: string): string | undefined {
  const match = /^(\d{3})[.,](\d{1,3})$/.exec(text.trim());
  if (!match) return "Enter a frequency such as 122.705.";
  const mhz = Number(match[1]);
  const digits = (match[2] as string).padEnd(3, "0");
  // "118.02" and "118.07" are short forms of 118.025 and 118.075.
  const khz = Number(/^\d[27]$/.test(match[2] as string) ? `${match[2]}5` : digits);
  if (mhz < 118 || mhz > 136) return "Enter a frequency from 118.000 to 136.990.";
  const last = khz % 100;
  const CHANNELS = [0, 5, 10, 15, 25, 30, 35, 40, 50, 55, 60, 65, 75, 80, 85, 90];
  return CHANNELS.includes(last) ? undefined : "Not a valid channel. Check the frequency.";
}
