import { type Apply, canBeUndone, goTo } from "../act";

export const bladePulled: Apply<"blade.pulled"> = (walk, event) => {
  const { itemId, blade } = event.data;
  walk.own("blades")[itemId] = blade;
  goTo(walk, itemId);
  canBeUndone(walk, event);
};
