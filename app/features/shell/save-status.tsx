import { router } from "expo-router";
import { Pressable } from "react-native";
import { useAppSelector } from "../../store/state/hooks";
import { Alert } from "../../ui/alert";
import { Text } from "../../ui/text";

/** Why nothing is sent although the server responds. */
export const STANDSTILL = {
  "sign in": "sign in to send",
  "not allowed": "the server refused access",
  busy: "the server is busy",
};

/** Shown only if an answer or draft could not be stored. */
export function NotSaved() {
  const keepError = useAppSelector((state) => state.preflight.keepError);
  const draftsWaiting = useAppSelector((state) => state.sync.draftsWaiting);
  if (!keepError && draftsWaiting === 0) return null;
  return (
    <Alert textClassName="font-strong text-sm" testID="save-error">
      {keepError ?? "What you typed is not saved: this device's storage is full. Free some space."}
    </Alert>
  );
}

/** Whether the last answer is stored on this device, and sent. Never says saved before it is. */
export function SaveStatus() {
  const { unkept, keepError } = useAppSelector((state) => state.preflight);
  const { toSend, refused, server, draftsWaiting } = useAppSelector((state) => state.sync);
  if (keepError || draftsWaiting > 0) return <NotSaved />;
  const words =
    unkept.length > 0
      ? "Saving …"
      : refused.length > 0
        ? `Saved on this device · ${refused.length} rejected`
        : server === "not reached"
          ? `Saved on this device · no network${toSend > 0 ? ` · ${toSend} to send` : ""}`
          : server === "sign in" || server === "not allowed" || server === "busy"
            ? `Saved on this device · ${STANDSTILL[server]}${toSend > 0 ? ` · ${toSend} to send` : ""}`
            : toSend > 0
              ? "Saved on this device · sending"
              : "Saved and sent";
  return (
    <Pressable
      role="link"
      aria-label={`${words}. Show data still to send`}
      onPress={() => router.push("/device")}
      className="justify-center py-1"
    >
      <Text
        testID="kept"
        className={`text-xs ${refused.length > 0 ? "font-strong text-clay" : "text-voice"}`}
      >
        {words}
      </Text>
    </Pressable>
  );
}
