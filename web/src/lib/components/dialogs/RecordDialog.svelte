<!-- @component What a press on Record records. -->
<script lang="ts">
  import { bounds } from "../../api/generated";
  import { counted } from "../../counted";
  import { getSession } from "../../state/context";
  import NumberRow from "../fields/NumberRow.svelte";
  import Dialog from "./Dialog.svelte";

  let { open = $bindable() }: { open: boolean } = $props();

  const session = getSession();
  const options = $derived(session.song.recordOptions);

  async function set(change: Partial<typeof options>): Promise<void> {
    session.song.recordOptions = { ...options, ...change };
  }

  const words = $derived.by(() => {
    const { countIn, from, bars, again } = options;
    const before = countIn ? `After a count-in of ${counted(countIn, "bar")}, ` : "";
    const begins = from
      ? `from bar ${from} on`
      : bars
        ? "from the next bar on"
        : "from the bar that plays";
    const lasts = bars ? counted(bars, "bar") : "until you end it";
    const more = again && bars ? ", and another take begins where one ends, until you end it" : "";
    const sentence = `${before}${begins}, ${lasts}${more}.`;
    return sentence.charAt(0).toUpperCase() + sentence.slice(1);
  });
</script>

<Dialog bind:open title="What to record">
  <div class="text-ink">
    <NumberRow
      label="Count-in"
      help="How many bars are counted in before playing begins; none where it plays already."
      unit="bars"
      value={options.countIn}
      {...bounds.RecordOptions.countIn}
      usual={0}
      commit={(countIn) => set({ countIn })}
    />
    <NumberRow
      label="From bar"
      name="Record from bar"
      help="The bar with which the take begins; 0 is now."
      unit="0: now"
      value={options.from}
      {...bounds.RecordOptions.from}
      usual={0}
      width="6ch"
      commit={(from) => set({ from })}
    />
    <NumberRow
      label="Length"
      name="Bars to record"
      help="How many bars the take has; 0: until you end it."
      unit="bars, 0: open"
      value={options.bars}
      {...bounds.RecordOptions.bars}
      usual={0}
      commit={(bars) => set({ bars })}
    />
    <label class="flex min-h-[29px] items-center gap-2">
      <input
        type="checkbox"
        class="accent-ink"
        disabled={!options.bars}
        checked={options.again}
        onchange={(event) => set({ again: event.currentTarget.checked })}
      />
      takes in a row: another begins where one ends
    </label>
    <p class="text-ink-2 mt-2">{words}</p>
  </div>
</Dialog>
