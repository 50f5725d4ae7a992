<!-- @component What a controller has besides keys: knobs, faders, buttons and two pedals, each a controller of MIDI. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { getPlaying } from "../../state/context";

  const { keyboard } = getPlaying();
  const max = bounds.PlayedNote.velocity.max;

  /** Their numbers are what General MIDI and common practice have them be. */
  const moved = [
    { name: "knob 1", number: 74 },
    { name: "knob 2", number: 71 },
    { name: "knob 3", number: 73 },
    { name: "knob 4", number: 72 },
    { name: "fader 1", number: 7 },
    { name: "fader 2", number: 11 },
  ];
  const pressed = [
    ...[1, 2, 3, 4].map((n) => ({ name: `button ${n}`, number: 79 + n })),
    { name: "sustain pedal", number: 64 },
    { name: "soft pedal", number: 67 },
  ];
  let down = $state<Record<number, boolean>>({});

  function press(number: number, is: boolean): void {
    if ((down[number] ?? false) === is) return;
    down[number] = is;
    keyboard.control(number, is ? max : 0);
  }
</script>

<div class="mb-1.5 flex flex-wrap items-center gap-2" role="group" aria-label="Knobs and pedals">
  {#each moved as { name, number } (number)}
    <label class="caption flex items-center gap-1">
      {name}
      <input
        type="range"
        class="accent-ink w-[76px]"
        min="0"
        {max}
        value="64"
        aria-label="{name}, CC {number}"
        data-help="Sends controller {number}, as a knob or a fader of a keyboard does."
        oninput={(event) => keyboard.control(number, Number(event.currentTarget.value))}
      />
    </label>
  {/each}
  {#each pressed as { name, number } (number)}
    <button
      class="control touch-none"
      aria-label="{name}, CC {number}"
      aria-pressed={down[number] ?? false}
      data-help="Sends controller {number} while it is held; with Shift it stays down until the next press."
      onpointerdown={() => press(number, true)}
      onpointerup={(event) => !event.shiftKey && press(number, false)}
      onpointercancel={() => press(number, false)}
      onpointerleave={(event) => event.buttons > 0 && press(number, false)}
      onclick={(event) => event.detail === 0 && press(number, !down[number])}>{name}</button
    >
  {/each}
</div>
