<!-- @component All keys, and how to read the chart. -->
<script lang="ts">
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const everywhere = [
    ["Space", "play from the selected bar, stop"],
    ["Shift+Space", "play on where it stopped"],
    ["R", "record, end the take"],
    ["L, Shift+L", "new luck, back"],
    ["Ctrl+Z, Ctrl+Shift+Z", "undo, redo"],
    ["F", "timeline, loop view"],
    ["M, S", "mute, solo the track, from the moment that “apply” says"],
    ["N", "open or close the keyboard"],
    ["J", "go to a lane or a track by its first letters"],
    ["PgUp, PgDn", "the track before, the next track"],
    ["1 to 5", "tool: draw, line, move, random, select"],
    ["Ctrl+C, Ctrl+V", "copy the selected steps, paste at the cursor"],
    ["Ctrl+A, Esc", "select the lane's loop, clear the selection"],
    ["B", "tap the tempo"],
    ["Tab", "on to the next lane or control"],
    ["F6", "on to the next area of the screen; with Shift back"],
    ["?", "this page"],
  ];
  const onALane = [
    ["← →", "the step before, the next step"],
    ["Alt+↑ ↓", "the lane above, the lane below"],
    ["Home, End", "the first step, the last step"],
    ["Shift+← →", "add steps to the selection"],
    ["↑ ↓", "value up, down; with Shift by ten, or by an octave"],
    ["Enter", "gate on, off"],
    ["T", "tie to the note before, untie"],
    ["Delete", "back to the default value"],
    ["[ ]", "rotate the steps left, right"],
    ["+ −", "a note more in a step of the pitch lane, one less; Shift and a click: that one"],
    ["O", "independent loop on, off"],
    ["K", "lock the selected steps, unlock them"],
  ];
  const onTheKeyboard = [
    ["A to ;", "the notes whose keys show the letters, Shift: loud"],
    ["Z, X", "an octave lower, higher"],
    ["C, V, B", "enter a rest, a tie, go a step back"],
  ];
  const onPerform = [
    ["1 to 9", "do a scene, from the moment that “apply at” says"],
    ["F , .", "hold: fill, push the tempo slower, faster"],
    ["← →", "the section before, the next section"],
    ["E", "end the section that waits with its pass"],
    ["B", "back: undo the last live change"],
    ["Backspace", "take back what was queued last"],
    ["O, W", "a loop of steps; what moves"],
    ["K", "keep the last eight bars as a take"],
    ["D, [ ]", "one is now; all 5 ms later, earlier"],
  ];
  const onATake = [
    ["Space", "hear the take, stop"],
    ["← →", "the note before, the next note"],
    ["Shift+← →", "add notes to the selection"],
    ["↑ ↓", "a semitone up, down; with Shift an octave"],
    ["Alt+← →", "earlier, later by the grid"],
    ["Alt+↑ ↓", "longer, shorter by the grid"],
    ["+ −", "louder, softer"],
    ["PgUp, PgDn", "higher, lower notes, where not all are shown"],
    ["Delete", "delete the selected notes"],
    ["Ctrl+Z", "undo in the take"],
  ];
</script>

{#snippet keys(title: string, list: string[][])}
  <h3 class="text-ink font-semibold not-first:mt-1">{title}</h3>
  <dl class="text-ink grid grid-cols-[96px_1fr] gap-y-1">
    {#each list as [key, does] (key)}
      <dt class="font-mono">{key}</dt>
      <dd>{does}</dd>
    {/each}
  </dl>
{/snippet}

<Dialog bind:open title="Help" size="lg">
  <div class="grid grid-cols-3 gap-x-6">
    <div>{@render keys("Everywhere", everywhere)}</div>
    <div>
      {@render keys("On a lane", onALane)}
      {@render keys("While computer keys play", onTheKeyboard)}
    </div>
    <div>
      {@render keys("On Perform", onPerform)}
      {@render keys("On a take", onATake)}
    </div>
  </div>
  <p class="text-ink">
    Each lane is a strip on one ruler, its loop repeated to the right; a small pennant marks where a
    loop begins, a red mark where the lane stands. Ink is certain. What stands in fog is left to
    chance, and already decided by the luck: a filled gate will sound this time, a hollow one will
    not. Alt draws a line, Ctrl moves all. Pull a loop's end to change its length; the steps beyond
    it are kept.
  </p>
</Dialog>
