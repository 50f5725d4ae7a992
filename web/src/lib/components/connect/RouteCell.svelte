<!-- @component Where a track and an output cross: whether the track goes there, how, and whether it plays there now. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Route, Track } from "../../api/types";
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";

  interface Props {
    track: Track;
    /** The id of a part of a kit, of which the cell is; without it it is of the whole track. */
    part?: number | undefined;
    /** What goes there: the track, or the part. */
    of: string;
    output: number;
    name: string;
    plays: boolean;
    /** Whether the sheet shows the route. */
    shown: boolean;
    show: () => void;
  }
  let { track, part, of, output, name, plays, shown, show }: Props = $props();

  const session = getSession();
  const outputs = getOutputs();
  const route = $derived(outputs.routeTo(track, output, part));
  const clashes = $derived(route ? outputs.clashesOf(track, output) : "");
  const marks = $derived(route ? marksOf(route) : "");

  /** How a route differs from one by which all goes as it is, in few characters. */
  function marksOf(route: Route): string {
    const { wholeRoute } = session.lists;
    const kind = outputs.list.find(({ id }) => id === output)?.kind ?? "browserPort";
    const words = { voltages: "volts", osc: "OSC", browserPort: "", serverDevice: "" };
    const own = output === builtIn ? session.patchOf(track.id) : words[kind];
    const first = route.channel || track.channel;
    const last = Math.min(bounds.Track.channel.max, first + (route.voices || 1) - 1);
    const marks = [own || (last > first ? `ch ${first}–${last}` : `ch ${first}`)];
    if (route.octave) marks.push(`oct ${route.octave > 0 ? "+" : "−"}${Math.abs(route.octave)}`);
    if (route.lowest !== wholeRoute.lowest || route.highest !== wholeRoute.highest)
      marks.push(`${session.notes.name(route.lowest)}–${session.notes.name(route.highest)}`);
    if (route.softest !== wholeRoute.softest || route.loudest !== wholeRoute.loudest)
      marks.push(`vel ${route.softest}–${route.loudest}`);
    if (route.program) marks.push(`prog ${session.programs.show(route.program)}`);
    return marks.join(", ");
  }

  const help = $derived.by(() => {
    if (clashes) return `${clashes}: the last one has its way. Another channel keeps them apart.`;
    return route
      ? "It goes here: press to see how, Delete to take the route away."
      : part === undefined
        ? "Press to have the track go here too."
        : "Press to have the part go here, and by none of the kit's own routes.";
  });

  async function press(): Promise<void> {
    if (!route) await outputs.toggle(track, output, part);
    show();
  }

  async function onkeydown(event: KeyboardEvent): Promise<void> {
    if (event.key !== "Delete" || !route) return;
    event.stopPropagation();
    await outputs.toggle(track, output, part);
  }
</script>

<button
  class={[
    "control h-[30px]! w-[150px] justify-start!",
    !route && "text-ink-3! border-dashed!",
    shown && "outline-ink-2 outline-2",
  ]}
  aria-pressed={route !== undefined}
  aria-label="{of} to {name}{marks && `: ${marks}`}{clashes && ', clashes'}"
  data-help={help}
  onclick={press}
  {onkeydown}
>
  <span
    class={["h-2.5 w-2.5 rounded-full", plays ? "bg-sounding" : route ? "border-ink-3 border" : ""]}
    aria-hidden="true"
  ></span>
  {#if clashes}<b class="text-signal" aria-hidden="true" data-clash>!</b>{/if}
  <span class="min-w-0 truncate font-mono text-[12px]">{marks || "–"}</span>
</button>
