<!-- @component The changes of meter: from which bar on which meter holds. -->
<script lang="ts">
  import type { Meter, MeterChange } from "../../api/types";
  import { meterOf, meterText } from "../../chart/meter";
  import { getSession } from "../../state/context";
  import ChangeLine from "./ChangeLine.svelte";

  const session = getSession();
  const changes = $derived(session.project.meterChanges ?? []);

  /** Stores the changes in their order; of two at one bar the one that was given last counts. */
  function set(made: (now: MeterChange[]) => MeterChange[]): Promise<void> {
    return session.edit(() => {
      const byBar = new Map(made([...changes]).map((change) => [change.bar, change]));
      const meterChanges = [...byBar.values()].sort((a, b) => a.bar - b.bar);
      return { setProject: { meterChanges } };
    });
  }

  function replace(bar: number, change: Partial<MeterChange>): Promise<void> {
    return set((now) => {
      const own = now.find((one) => one.bar === bar);
      return own ? [...now.filter((one) => one !== own), { ...own, ...change }] : now;
    });
  }

  function write(bar: number, field: HTMLInputElement, before: Meter): void {
    const meter = meterOf(field.value);
    if (meter) {
      void replace(bar, { meter });
      return;
    }
    session.notices.add(`“${field.value}” is no meter; write it as 7/8 or 2+2+3/8.`);
    field.value = meterText(before);
  }

  function add(): Promise<void> {
    return set((now) => {
      const bar = (now.at(-1)?.bar ?? 0) + 4;
      return [...now, { bar, meter: session.bars.meter(bar) }];
    });
  }
</script>

{#each changes as { bar, meter } (bar)}
  <ChangeLine
    what="meter"
    bar={bar + 1}
    move={(to) => replace(bar, { bar: to - 1 })}
    remove={() => set((now) => now.filter((one) => one.bar !== bar))}
  >
    <input
      class="control w-[90px]"
      aria-label="Meter from bar {bar + 1}"
      data-help="A meter, as 7/8, or 2+2+3/8 to group its beats."
      autocomplete="off"
      value={meterText(meter)}
      onchange={(event) => write(bar, event.currentTarget, meter)}
    />
  </ChangeLine>
{/each}
<button class="control" disabled={changes.length === 256} onclick={add}>+ meter change</button>
