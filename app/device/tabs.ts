import type { PreflightEvent } from "@cravix/core";

/** What one window of this device tells the others. */
export type TabMessage =
  | { kind: "events"; events: PreflightEvent[] }
  /** The walks that are open on this device are others now. */
  | { kind: "open walks" }
  /** Events of this walk were changed on the disk: their times were put right. */
  | { kind: "changed"; preflightId: string };

const channel = typeof BroadcastChannel === "undefined" ? undefined : new BroadcastChannel("cravix");
// Where the tests run, a channel that is listened to would keep the process awake.
(channel as { unref?: () => void } | undefined)?.unref?.();

export function tellTabs(message: TabMessage): void {
  channel?.postMessage(message);
}

export function hearTabs(hear: (message: TabMessage) => void): void {
  if (channel) channel.onmessage = ({ data }: MessageEvent<TabMessage>) => hear(data);
}
