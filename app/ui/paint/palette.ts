/** Colours of global.css for drawings; a test compares both files. */
export const DAY = {
  paper: "#F7F3E8",
  ink: "#15201D",
  chock: "#FFC91A",
  clay: "#80220C",
  stone: "#E7E0CC",
  voice: "#3C453F",
  deck: "#15201D",
  deckInk: "#F7F3E8",
  onChock: "#15201D",
};
export type Palette = typeof DAY;

export const NIGHT: Palette = {
  paper: "#0D1110",
  ink: "#D6CAAE",
  chock: "#C49614",
  clay: "#EC9678",
  stone: "#1D2422",
  voice: "#AEA894",
  deck: "#050807",
  deckInk: "#D6CAAE",
  onChock: "#0D1110",
};
