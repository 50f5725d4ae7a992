<!-- @component The tempo, luck, meter and key that a section has from where it begins, if it has them. -->
<script module lang="ts">
  /** What a section can say itself. */
  export type Own = "tempo" | "luck" | "meter" | "key";
</script>

<script lang="ts">
  import { bounds } from "../../api/generated";
  import type { Key, Section } from "../../api/types";
  import { rootNames } from "../../chart/key";
  import { meterOf, meterText } from "../../chart/meter";
  import { scaled } from "../../chart/numbers";
  import { getSession } from "../../state/context";
  import FieldRow from "../fields/FieldRow.svelte";
  import NumberField from "../fields/NumberField.svelte";

  interface Props {
    section: Section;
    set: (change: Partial<Section>) => Promise<void>;
    /** Has something stay as it was before the section. */
    drop: (what: Own) => Promise<void>;
  }
  let { section, set, drop }: Props = $props();

  const session = getSession();
  /** What the section gets where it is given something: what the project has. */
  const give: Record<Own, () => Partial<Section>> = {
    tempo: () => ({ tempo: session.project.tempo }),
    luck: () => ({ luck: session.project.luck.number }),
    meter: () => ({ meter: session.project.meter }),
    key: () => ({ key: session.project.key }),
  };
  const all = Object.keys(give) as Own[];

  function keyWords(key: Key | undefined): string {
    return key ? `${rootNames(key, session.lists)[key.root]} ${key.scale}` : "";
  }

  function writeMeter(text: string): void {
    const meter = meterOf(text);
    if (meter) void set({ meter });
    else session.notices.add(`“${text}” is no meter; write it as 7/8 or 2+2+3/8.`);
  }
</script>

{#each all as what (what)}
  <FieldRow
    label={what}
    help="The {what} from where the section begins; without one it stays as it is. It is given the project’s first, as the top bar has it."
  >
    {#if section[what] === undefined}
      <button
        class="control"
        aria-label="as before: give the section a {what}"
        onclick={() => set(give[what]())}>as before</button
      >
    {:else}
      {#if what === "meter" && section.meter}
        <input
          class="control w-[80px]"
          aria-label="Section meter"
          autocomplete="off"
          value={meterText(section.meter)}
          onchange={(event) => writeMeter(event.currentTarget.value)}
        />
      {:else if what === "tempo"}
        <NumberField
          label="Section tempo"
          help="The tempo from where the section begins; in beats per minute."
          value={(section.tempo ?? 0) / 1000}
          {...scaled(bounds.Project.tempo, 1000)}
          decimals={2}
          width="72px"
          commit={(bpm) => set({ tempo: Math.round(bpm * 1000) })}
        />
      {:else if what === "luck"}
        <NumberField
          label="Section luck"
          help="The luck that decides from where the section begins."
          value={section.luck ?? 0}
          {...bounds.Section.luck}
          width="72px"
          commit={(luck) => set({ luck })}
        />
      {:else}<span>{keyWords(section.key)}</span>{/if}
      <button class="control" aria-label="Leave the {what} as before" onclick={() => drop(what)}
        >✕</button
      >
    {/if}
  </FieldRow>
{/each}
