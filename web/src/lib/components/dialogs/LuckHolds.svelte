<!-- @component Holding the luck of all tracks: for some bars, or that of the bars that were heard last. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { getSession } from "../../state/context";
  import NumberField from "../fields/NumberField.svelte";

  const session = getSession();
  const { min, max } = bounds.Track.hold;
  const holds = $derived(session.project.tracks.map((track) => track.hold));

  /** Sets the hold of every track, or adds to it. */
  function holdAll(bars: number, add: boolean): Promise<void> {
    const edits = session.project.tracks.map((track) => ({
      setTrack: {
        track: track.id,
        hold: Math.min(max, Math.max(min, add ? track.hold + bars : bars)),
      },
    }));
    return session.editAll("hold of all tracks", edits);
  }

  let lastBars = $state(4);

  /** Has the bars that were heard last come again on all tracks, from now on. */
  async function holdLast(): Promise<void> {
    const tick = session.transport.tickAt(performance.now());
    if (tick === undefined) return;
    const holdFrom = Math.max(0, session.bars.at(tick) - lastBars);
    const edits = session.project.tracks.map((track) => ({
      setTrack: { track: track.id, hold: lastBars, holdFrom },
    }));
    await session.editAll("hold of the last bars", edits);
  }
</script>

<div class="border-line flex items-center gap-2 border-t pt-2">
  <span>hold the luck of all tracks for</span>
  <NumberField
    label="Hold of all tracks in bars"
    value={holds[0] ?? 0}
    {...bounds.Track.hold}
    usual={0}
    many={holds.some((hold) => hold !== holds[0])
      ? {
          text: `${Math.min(...holds)}–${Math.max(...holds)}`,
          shift: (by) => holdAll(by, true),
        }
      : undefined}
    width="5ch"
    commit={(bars) => holdAll(bars, false)}
  />
  <span>bars, then the same again; 0 never.</span>
</div>
<div class="flex items-center gap-2">
  <span>hold the luck of the last</span>
  <NumberField
    label="Last bars to hold"
    value={lastBars}
    {...bounds.Track.hold}
    min={1}
    width="5ch"
    commit={async (bars) => {
      lastBars = bars;
    }}
  />
  <span>whole bars that were heard</span>
  <button class="control" disabled={!session.transport.playing} onclick={holdLast}
    >hold the luck of the last bars</button
  >
</div>
