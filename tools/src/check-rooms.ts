import { cruise, type ICruiseResult } from "dependency-cruiser";
import { roomCircles, roomGraph } from "./room-circles";

/** Fails if rooms import each other in a circle, folders inside them counted. */
const { output } = await cruise(["core", "contract", "server", "app"], {
  doNotFollow: { path: "node_modules" },
  exclude: { path: "((node_modules|dist|\\.expo)/|nativewind-env\\.d\\.ts$)" },
  tsPreCompilationDeps: true,
});
const { modules } = output as ICruiseResult;
const circles = roomCircles(
  roomGraph(
    modules.map(({ source, dependencies }) => ({
      source,
      imports: dependencies.map(({ resolved }) => resolved),
    })),
  ),
);
for (const way of circles) console.error(`These rooms import each other in a circle: ${way.join(" → ")}`);
if (circles.length > 0) process.exitCode = 1;
