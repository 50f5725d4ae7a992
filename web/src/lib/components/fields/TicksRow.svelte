<!--
@component
A line of the sheet with a short time: a field in ticks of which a beat has 960, as in the usual MIDI file, and beside
it how many milliseconds they are at the project's tempo.
-->
<script lang="ts">
  import { getSession } from "../../state/context";
  import NumberRow from "./NumberRow.svelte";

  interface Props {
    label: string;
    help: string;
    name?: string;
    /** In the ticks of the project. */
    value: number;
    /** Whether it can be below 0. */
    signed?: boolean;
    commit: (value: number) => Promise<void>;
  }
  let { label, help, name = label, value, signed = false, commit }: Props = $props();

  const session = getSession();
  const perBeat = 960;

  const scale = $derived(session.lists.ticksPerQuarter / perBeat);
  const milliseconds = $derived(value / session.snapshot.ticksPerMilli);
</script>

<NumberRow
  {label}
  {name}
  help="{help} In ticks, of which a beat has {perBeat}; beside it in milliseconds at the project's tempo."
  unit="{milliseconds.toFixed(0).replace('-', '−')} ms"
  value={Math.round(value / scale)}
  min={signed ? -perBeat : 0}
  max={perBeat}
  usual={0}
  width="4ch"
  commit={(ticks) => commit(ticks * scale)}
/>
