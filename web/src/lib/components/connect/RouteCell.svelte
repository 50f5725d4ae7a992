<!-- @component Where a track and an output cross: whether the track goes there, how, and whether it plays there now. -->
<script lang="ts">
  import type { Route, Track } from "../../api/types";
  import { getOutputs, getSession } from "../../state/context";
  import { builtIn } from "../../state/outputRoutes.svelte";

  interface Props {
    track: Track;
    output: number;
    name: string;
    plays: boolean;
    /** Whether the sheet shows the route. */
    shown: boolean;
    show: () => void;
  }
  let { track, output, name, plays, shown, show }: Props = $props();

  const session = getSession();
  const outputs = getOutputs();
  const route = $derived(outputs.routesOf(track).find((r) => r.output === output));
  const clashes = $derived(route ? outputs.clashesOf(track, output) : "");
  const marks = $derived(route ? marksOf(route) : "");

  /** How a route differs from one by which all goes as it is, in few characters. */
  function marksOf(route: Route): string {
    const { wholeRoute } = session.lists;
    const own = output === builtIn ? session.patchOf(track.id) : "";
    const marks = [own || `ch ${route.channel || track.channel}`];
    if (route.octave) marks.push(`oct ${route.octave > 0 ? "+" : "−"}${Math.abs(route.octave)}`);
    if (route.lowest !== wholeRoute.lowest || route.highest !== wholeRoute.highest)
      marks.push(`${session.notes.name(route.lowest)}–${session.notes.name(route.highest)}`);
    if (route.softest !== wholeRoute.softest || route.loudest !== wholeRoute.loudest)
      marks.push(`vel ${route.softest}–${route.loudest}`);
    return marks.join(", ");
  }

  const help = $derived.by(() => {
    if (clashes) return `${clashes}: the last one has its way. Another channel keeps them apart.`;
    return route
      ? "The track goes here: press to see how, Delete to take the route away."
      : "Press to have the track go here too.";
  });

  async function press(): Promise<void> {
    if (!route) await outputs.toggle(track, output);
    show();
  }

  async function onkeydown(event: KeyboardEvent): Promise<void> {
    if (event.key !== "Delete" || !route) return;
    event.stopPropagation();
    await outputs.toggle(track, output);
  }
</script>

<button
  class={[
    "control h-[30px]! w-[150px] justify-start!",
    !route && "text-ink-3! border-dashed!",
    shown && "outline-ink-2 outline-2",
  ]}
  aria-pressed={route !== undefined}
  aria-label="{track.name} to {name}{marks && `: ${marks}`}{clashes && ', clashes'}"
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
