<!-- @component How the track's time, pitch and luck differ from what is written. -->
<script lang="ts">
  import type { SetTrack } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberField from "../number-field/NumberField.svelte";

  const session = getSession();
  const track = $derived(session.track);

  interface Field {
    name: string;
    help: string;
    value: number;
    min: number;
    max: number;
    change: (value: number) => Omit<SetTrack, "track">;
  }

  const fields: Field[] = $derived([
    {
      name: "swing",
      help: "Swing: the share of a pair of steps that the first one takes, 50 to 75 %.",
      value: track.swing || session.project.swing,
      min: 50,
      max: 75,
      change: (swing) => ({ swing }),
    },
    {
      name: "degrees up",
      help: "Transposes within the scale.",
      value: track.transpose.degrees,
      min: -28,
      max: 28,
      change: (degrees) => ({ transpose: { ...track.transpose, degrees } }),
    },
    {
      name: "semitones up",
      help: "Transposes by semitones, which can lead out of the scale.",
      value: track.transpose.semitones,
      min: -48,
      max: 48,
      change: (semitones) => ({ transpose: { ...track.transpose, semitones } }),
    },
    {
      name: "hold, bars",
      help: "Hold: the same luck again every so many bars; 0 never.",
      value: track.hold,
      min: 0,
      max: 64,
      change: (hold) => ({ hold }),
    },
    {
      name: "realign, bars",
      help: "Realign: all lanes back to their first step every so many bars; 0 never.",
      value: track.realign,
      min: 0,
      max: 64,
      change: (realign) => ({ realign }),
    },
  ]);
</script>

{#each fields as field (field.name)}
  <div class="flex h-[30px] items-center justify-between gap-2">
    <span>{field.name}</span>
    <NumberField
      label="Track {field.name}"
      help={field.help}
      value={field.value}
      min={field.min}
      max={field.max}
      commit={(value) => session.edit({ setTrack: { track: track.id, ...field.change(value) } })}
    />
  </div>
{/each}
