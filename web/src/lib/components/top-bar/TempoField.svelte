<!-- @component The tempo: typed, dragged, stepped or tapped. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
</script>

<div>
  <div class="caption">tempo</div>
  <div class="flex gap-1">
    <NumberField
      label="Tempo in beats per minute"
      help="Tempo in quarter notes a minute: type, drag up and down, or use the arrow keys."
      value={session.project.tempo / 1000}
      {...scaled(bounds.Project.tempo, 1000)}
      decimals={2}
      width="6ch"
      commit={(tempo) => session.setTempo(tempo)}
    />
    <button
      class="control px-1!"
      data-help="Tap the tempo, twice or more. B"
      aria-label="Tap tempo"
      onclick={() => session.tempoTap.tap()}>tap</button
    >
  </div>
</div>
