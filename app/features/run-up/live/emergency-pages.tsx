import { magnetoCause } from "@cravix/core/engine/judge-magnetos";
import { readingKey } from "@cravix/core/readings/reading-keys";
import { sideNames } from "@cravix/core/run-up-entry";
import { causeOnEngine } from "@cravix/core/verdict/judges/judge";
import { router } from "expo-router";
import { usePreflightActions } from "../../open-preflight";
import { type Desk, isPractice, recordRead } from "../run-up-desk";
import type { EmergencyCard } from "../run-up-pages";
import { EmergencyList, EmergencyNow } from "./emergency";

/** The list of emergencies, or the card of one. */
export function EmergencyPages({ desk }: { desk: Desk }) {
  const { state, step } = desk;
  const over = () => step({ type: "emergency over" });
  if (state.emergency === undefined) return null;
  if (state.emergency === "list")
    return (
      <EmergencyList
        onPick={(id) => step({ type: "emergency", card: { id, practice: isPractice(desk) } })}
        onBack={over}
      />
    );
  return <Card desk={desk} card={state.emergency} onBack={over} />;
}

function Card({ desk, card, onBack }: { desk: Desk; card: EmergencyCard; onBack: () => void }) {
  const { preflight, engine, reading } = desk;
  const acts = usePreflightActions(preflight);
  const { id, side, practice } = card;
  const log = (text: string) => {
    if (reading.read) recordRead(desk, reading.read);
    const key = side && readingKey(`magneto.${side}`, engine.name);
    const sideItem = key && preflight.list.items.find((item) => item.reading?.key === key);
    // Later judgements of the same side have the same cause.
    const cause = side ? causeOnEngine(magnetoCause(side), engine.name) : undefined;
    acts.found(sideItem || engine.baseItem, text, "stop", cause ? { cause } : {});
    router.replace(`/preflight/${preflight.state.id}/verdict`);
  };
  return (
    <EmergencyNow
      id={id}
      profile={engine.profile}
      practice={practice}
      where={side ? `on ${sideNames(engine.profile)[side]}` : ""}
      onBack={onBack}
      onLog={log}
    />
  );
}
