<!-- @component The track's name, where it goes and how high and low it may go. -->
<script lang="ts">
  import type { SetTrack } from "../../api/types";
  import { getSession } from "../../state/context";
  import NumberField from "../number-field/NumberField.svelte";

  const session = getSession();
  const track = $derived(session.track);
  const register = $derived(track.register);
  const octave = 12;

  function set(change: Omit<SetTrack, "track">): Promise<void> {
    return session.edit({ setTrack: { track: track.id, ...change } });
  }
</script>

<h2 class="border-line mt-3 border-t pt-2 text-[14px] font-semibold">Track</h2>
<div class="flex h-[30px] items-center justify-between gap-2">
  <label for="track-name">name</label>
  <input
    id="track-name"
    class="control w-[112px]"
    maxlength="60"
    autocomplete="off"
    value={track.name}
    onchange={(event) => {
      const name = event.currentTarget.value.trim();
      if (name && name !== track.name) void set({ name });
      else event.currentTarget.value = track.name;
    }}
  />
</div>
<div class="flex h-[30px] items-center justify-between gap-2">
  <span>channel</span>
  <NumberField
    label="MIDI channel"
    help="MIDI channel, 1 to 16."
    value={track.channel}
    min={1}
    max={16}
    commit={(channel) => set({ channel })}
  />
</div>
<div class="flex h-[30px] items-center justify-between gap-2">
  <span>lowest note</span>
  <NumberField
    label="Lowest note"
    help="Lowest MIDI note of the register. Notes outside are folded in by whole octaves."
    value={register.lowest}
    min={0}
    max={register.highest - octave + 1}
    commit={(lowest) => set({ register: { ...register, lowest } })}
  />
</div>
<div class="flex h-[30px] items-center justify-between gap-2">
  <span>highest note</span>
  <NumberField
    label="Highest note"
    help="Highest MIDI note of the register. Notes outside are folded in by whole octaves."
    value={register.highest}
    min={register.lowest + octave - 1}
    max={127}
    commit={(highest) => set({ register: { ...register, highest } })}
  />
</div>
