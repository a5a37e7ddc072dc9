import { backToPreflight, type Desk, engineSuffix } from "../run-up-desk";
import { TypedPage } from "./manual-run-up-page";

/** Results of numbers entered by hand. */
export function TypedResult({ desk, typed }: { desk: Desk; typed: NonNullable<Desk["hand"]["typed"]> }) {
  const { preflight, engine, hand, step, wide } = desk;
  return (
    <TypedPage
      title={`${preflight.list.registration}: run-up${engineSuffix(desk)}`}
      engine={engine}
      read={typed}
      wide={wide}
      onTell={hand.tell}
      onCleared={() => {
        hand.cleared();
        step({ type: "enter again" });
      }}
      onAgain={() => {
        hand.again();
        step({ type: "enter again" });
      }}
      onEmergency={() => step({ type: "emergency", card: "list" })}
      onDone={() => {
        hand.drop();
        backToPreflight(desk);
      }}
    />
  );
}
