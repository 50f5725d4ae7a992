/** What the pointer does on a strip. */
export type Tool = "draw" | "line" | "move" | "random" | "select";

export interface ToolSpec {
  tool: Tool;
  key: string;
  help: string;
}

/** The tools in the order in which to offer them. */
export const tools: ToolSpec[] = [
  {
    tool: "draw",
    key: "1",
    help: "Draw: write values where the pointer goes. On gates, switch; with Shift, tie. Key 1.",
  },
  {
    tool: "line",
    key: "2",
    help: "Line: a straight line from where the pointer went down. Also by Alt with any tool. Key 2.",
  },
  {
    tool: "move",
    key: "3",
    help: "Move: all selected steps of the lane, or its whole loop, up and down. Also by Ctrl. Key 3.",
  },
  {
    tool: "random",
    key: "4",
    help: "Random: values around the pointer, as far as the number beside says. Key 4.",
  },
  {
    tool: "select",
    key: "5",
    help: "Select: a box over steps of any lanes, for the sheet, the keys, copying and rolling. Key 5.",
  },
];

/** The tool that a press of the pointer asks for: the modifiers go before the tool in force. */
export function toolOf(tool: Tool, event: PointerEvent): Tool {
  if (event.altKey) return "line";
  if (event.ctrlKey || event.metaKey) return "move";
  return tool;
}
