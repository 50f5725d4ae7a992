<!-- @component The changes of tempo: from which bar on which tempo holds. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import type { TempoChange } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";
  import ChangeLine from "./ChangeLine.svelte";

  const session = getSession();
  const changes = $derived(session.project.tempoChanges ?? []);

  /** Stores the changes in their order; of two at one tick the one that was given last counts. */
  function set(made: (now: TempoChange[]) => TempoChange[]): Promise<void> {
    return session.edit(() => {
      const byTick = new Map(made([...changes]).map((change) => [change.tick, change]));
      const tempoChanges = [...byTick.values()].sort((a, b) => a.tick - b.tick);
      return { setProject: { tempoChanges } };
    });
  }

  function replace(tick: number, change: Partial<TempoChange>): Promise<void> {
    return set((now) => {
      const own = now.find((one) => one.tick === tick);
      return own ? [...now.filter((one) => one !== own), { ...own, ...change }] : now;
    });
  }

  function add(): Promise<void> {
    return set((now) => {
      const last = now.at(-1);
      const bar = last ? session.bars.at(last.tick) + 4 : 4;
      const tempo = last?.tempo ?? session.project.tempo;
      return [...now, { tick: session.bars.start(bar), tempo }];
    });
  }
</script>

{#each changes as { tick, tempo } (tick)}
  <ChangeLine
    what="tempo"
    bar={session.bars.at(tick) + 1}
    move={(bar) => replace(tick, { tick: session.bars.start(bar - 1) })}
    remove={() => set((now) => now.filter((one) => one.tick !== tick))}
  >
    <NumberField
      label="Tempo from bar {session.bars.at(tick) + 1}"
      help="Beats a minute from there on."
      value={tempo / 1000}
      {...scaled(bounds.Project.tempo, 1000)}
      decimals={2}
      width="7ch"
      commit={(bpm) => replace(tick, { tempo: Math.round(bpm * 1000) })}
    />
    <span class="caption">bpm</span>
  </ChangeLine>
{/each}
<button class="control" disabled={changes.length === 256} onclick={add}>+ tempo change</button>
