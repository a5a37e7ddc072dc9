import { type Observation, openQuestions } from "@cravix/core/diagnosis";
import { format } from "date-fns/format";
import { View } from "react-native";
import { Button } from "../../ui/button";
import { Screen } from "../../ui/screen";
import { Heading, Text } from "../../ui/text";
import type { Walk } from "../walk/use-preflight";
import { AskBack } from "./ask-back";
import { sideWords, type WalkEngine } from "./engine-of-walk";
import { Guess, Planting } from "./guess";
import type { Planted } from "./planted";
import { Results } from "./results";
import { plantedWords } from "./troubles";
import { PLUGS } from "./typed-read";
import type { ReadRunUp } from "./use-read-run-up";

/** A run-up that was read: what is asked of the pilot, what came of it, and what is done with it. */
export function ReadPage({
  walk,
  engine,
  read,
  planted,
  guess,
  wide,
  onGuess,
  onTell,
  onClear,
  onAgain,
  onEmergency,
  onDone,
}: {
  walk: Walk;
  engine: WalkEngine;
  read: ReadRunUp;
  planted: Planted;
  /** What the learner took it for. */
  guess: string | undefined;
  wide: boolean;
  onGuess: (kind: string) => void;
  onTell: (
    told: Observation[],
    change?: { asked?: ReadRunUp["asked"][number]; onlySide?: "right" | "left" },
  ) => void;
  onClear: () => void;
  onAgain: () => void;
  onEmergency: () => void;
  onDone: () => void;
}) {
  const { profile } = engine;
  const [next] = read.answer.report.next;
  const best = read.answer.report.ranked[0]?.fault;
  // A plug that did not come clean is tried once more, and no more than the type says.
  const tried = read.tries > 0 && !read.answer.remedied && best !== undefined && PLUGS.has(best);
  const clears =
    read.source === "monitor" && !read.answer.remedied && ((next?.id === "clear" && best) || tried);
  const used = read.tries >= profile.clear.tries;
  const practice = read.practice === true;
  const guessing = practice && planted.secret && guess === undefined && read.tries === 0;
  const [question] = guessing ? [] : openQuestions(read.answer.reading, profile, new Set(read.asked));
  const over = used && Boolean(clears) && !guessing;
  const offers = clears && !used && !guessing;
  return (
    <Screen
      wideWidth={wide ? "max-w-[1240px]" : "max-w-3xl"}
      actions={
        <View className="gap-2">
          {offers && (
            <Button
              tone="primary"
              className="min-h-16"
              textClassName="text-2xl"
              testID="start-minute"
              onPress={onClear}
            >
              {tried ? "Once more: the minute" : "Start the minute"}
            </Button>
          )}
          <View className="flex-row gap-2">
            <Button tone="deck" className="min-h-16 flex-1 px-1" textClassName="text-base" onPress={onAgain}>
              Again
            </Button>
            <Button
              tone="deck"
              className="min-h-16 flex-1 border-4 px-1"
              textClassName="text-base"
              onPress={onEmergency}
              testID="emergency"
            >
              Stop: trouble
            </Button>
            <Button
              tone={offers ? "deck" : "primary"}
              className="min-h-16 flex-[1.7]"
              textClassName="text-xl"
              testID={practice ? "end-practice" : "use-numbers"}
              onPress={onDone}
            >
              {practice ? "End practice" : "Write it down"}
            </Button>
          </View>
        </View>
      }
    >
      <Heading
        level={1}
        className="mb-2 text-2xl"
      >{`${walk.list.registration}: ${practice ? "practice" : "run-up"}${engine.name ? `, ${engine.name} engine` : ""}`}</Heading>
      {practice && !guessing && (
        <Planting
          words={plantedWords(planted, sideWords(profile))}
          truth={planted.fault.kind}
          {...(guess !== undefined && { guess })}
        />
      )}
      {read.kept && (
        <View role="status" className="mb-3 border-l-4 border-chock pl-2" testID="kept-run-up">
          <Text className="font-mid">{`From ${format(read.at, "HH:mm")}, kept on this device: not written down yet.`}</Text>
        </View>
      )}
      {over && (
        <View role="alert" className="mb-3 rounded-xl border-4 border-clay px-3 py-2">
          <Text className="font-strong text-lg text-clay">{`Not cleared in ${profile.clear.tries} tries: taxi back.`}</Text>
        </View>
      )}
      {question && (
        <AskBack
          question={question}
          onAnswer={({ told, onlySide }) =>
            onTell(told, { asked: question.id, ...(onlySide && { onlySide }) })
          }
        />
      )}
      <Results
        walk={walk}
        engine={engine}
        answer={read.answer}
        trace={read.trace}
        source={read.source}
        wide={wide}
        over={over}
        {...(guessing && {
          lesson: <Guess answer={read.answer} truth={planted.fault.kind} onGuess={onGuess} />,
        })}
        onTried={(observation) => onTell([observation])}
      />
    </Screen>
  );
}
