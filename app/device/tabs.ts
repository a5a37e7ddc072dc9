import type { PreflightEvent } from "@cravix/core/checklist/stream/events";

/** Messages between windows of this device. */
export type TabMessage =
  | { kind: "events"; events: PreflightEvent[] }
  /** The list of open preflights changed. */
  | { kind: "open walks" }
  /** Times of this preflight's stored events were corrected. */
  | { kind: "changed"; preflightId: string };

const channel = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("cravix");
// In tests an open channel would keep the process alive.
(channel as { unref?: () => void } | undefined)?.unref?.();

export function notifyTabs(message: TabMessage): void {
  channel?.postMessage(message);
}

export function hearTabs(hear: (message: TabMessage) => void): void {
  if (channel) channel.onmessage = ({ data }: MessageEvent<TabMessage>) => hear(data);
}
