<!-- @component How a lane writes new values over its steps as time goes by; what is stored stays. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Evolve, Lane, LaneName } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";

  let { name, lane }: { name: LaneName; lane: Lane } = $props();

  const session = getSession();
  const spec = $derived(session.spec(name));
  const fresh = $derived({ every: 4, percent: 0, lowest: spec.least, highest: spec.most });
  const evolve: Evolve = $derived(lane.evolve ?? fresh);

  function set(change: Partial<Evolve>): Promise<void> {
    const usual = fresh;
    return session.setLane(name, (now) => ({ evolve: { ...(now.evolve ?? usual), ...change } }));
  }
</script>

<NumberRow
  label="steps"
  name="{name} evolves by"
  help="How many of the steps are rolled anew each time; 0 is none. Locked steps stay."
  unit="%"
  value={evolve.percent}
  {...bounds.Evolve.percent}
  usual={0}
  commit={(percent) => set({ percent })}
/>
<NumberRow
  label="every"
  name="{name} evolves every"
  help="After how many bars."
  unit="bars"
  value={evolve.every}
  {...bounds.Evolve.every}
  usual={4}
  commit={(every) => set({ every })}
/>
<NumberRow
  label="lowest"
  name="{name} evolves to lowest"
  help="The least new value."
  value={evolve.lowest}
  min={spec.least}
  max={evolve.highest}
  usual={spec.least}
  commit={(lowest) => set({ lowest })}
/>
<NumberRow
  label="highest"
  name="{name} evolves to highest"
  help="The most new value."
  value={evolve.highest}
  min={evolve.lowest}
  max={spec.most}
  usual={spec.most}
  commit={(highest) => set({ highest })}
/>
