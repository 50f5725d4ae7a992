<!-- @component The scene that is written, and a way to make one of what plays. -->
<script lang="ts">
  import type { Control, SceneValue } from "../../api/types";
  import { loopControls, stepsOf, stepsText } from "../../chart/loopSteps";
  import { getSession } from "../../state/context";
  import { readBy } from "../../state/movers.svelte";
  import type { Perform } from "../../state/perform.svelte";
  import SwitchRow from "../fields/SwitchRow.svelte";
  import TextRow from "../fields/TextRow.svelte";

  let { perform }: { perform: Perform } = $props();

  const session = getSession();
  const stage = session.stage;
  const scenes = $derived(session.project.scenes ?? []);
  const index = $derived(scenes.findIndex(({ id }) => id === perform.scene));
  const scene = $derived(scenes[index]);

  /** What plays by now: of every track its pattern, its mute and its transposition, and besides all live changes. */
  function valuesNow(): SceneValue[] {
    const values = session.project.tracks.flatMap((track): SceneValue[] => {
      const of = (name: string, written: number) => ({
        control: { name, track: track.id },
        value: stage.value({ name, track: track.id }, written),
      });
      return [
        of("pattern", track.playing),
        of("mute", track.mute ? 1 : 0),
        of("degrees", track.transpose.degrees),
        of("semitones", track.transpose.semitones),
      ];
    });
    const named = new Set(values.map(({ control }) => `${control.name} ${control.track}`));
    const others = stage.changes.filter(
      ({ control }) =>
        control.name !== "push" &&
        control.name !== "fill" &&
        control.name !== "scene" &&
        !named.has(`${control.name} ${control.track}`),
    );
    return [...values, ...others.map(({ control, value }) => ({ control, value }))].slice(0, 512);
  }

  /** Adds a scene of what plays behind the one that is written, and turns to it. */
  async function keep(): Promise<void> {
    const at = index < 0 ? scenes.length : index + 1;
    const name = `Scene ${scenes.length + 1}`;
    await session.edit(() => ({ setScene: { at, scene: { id: 0, name, values: valuesNow() } } }));
    perform.scene = (session.project.scenes ?? [])[at]?.id ?? perform.scene;
  }

  function words({ control, value }: SceneValue): string {
    if (control.id) {
      const by = readBy(perform.movers.spec(control));
      return `${perform.movers.words(control)} ${value / by} %`;
    }
    const track = session.project.tracks.find(({ id }) => id === control.track);
    const parts = track?.patterns.find(({ id }) => id === (control.pattern ?? 0))?.parts ?? [];
    const ofPart = control.lane !== undefined || control.name.startsWith("loop steps");
    const part = parts.length > 1 && ofPart && parts.find(({ id }) => id === (control.part ?? 0));
    const name = `${track?.name ?? `track ${control.track}, gone`}${part ? `, ${part.name}` : ""}`;
    const of = control.track ? `${name}: ` : "";
    return `${of}${[control.lane, control.name].filter(Boolean).join(" ")} ${valueWords(control, value)}`;
  }

  function valueWords({ name, track }: Control, value: number): string {
    const of = session.project.tracks.find(({ id }) => id === track);
    if (name === "pattern")
      return of?.patterns.find(({ id }) => id === value)?.name ?? `${value}, gone`;
    if (name.startsWith("field ")) {
      const kept = (session.project.fieldLayers ?? []).find(
        (layer) => layer.id === value && name === `field ${layer.kind}`,
      );
      return kept?.name ?? `${value}, gone`;
    }
    const row = loopControls.indexOf(name);
    if (row >= 0)
      return stepsText(stepsOf(loopControls.map((_, i) => (i === row ? value : 0)))) || "none";
    if (name === "speed") return `${Math.floor(value / 16) + 1}:${(value % 16) + 1}`;
    if (name === "order") return session.lists.orders[value]?.label ?? String(value);
    if (name.endsWith("mute") || name === "solo" || name === "active") return value ? "on" : "off";
    return String(value);
  }

  function remove(id: number, place: number): Promise<void> {
    return session.edit(() => {
      const now = (session.project.scenes ?? []).find((s) => s.id === id);
      const values = (now?.values ?? []).filter((_, i) => i !== place);
      return { setScene: { scene: { id, name: now?.name ?? "Scene", values } } };
    });
  }

  function rename(id: number, name: string): Promise<void> {
    return session.edit(() => {
      const values = (session.project.scenes ?? []).find((s) => s.id === id)?.values ?? [];
      return { setScene: { scene: { id, name, values } } };
    });
  }
</script>

<button
  class="control w-full"
  disabled={scenes.length >= 64}
  data-help="Keep what plays by now as a scene: every track's pattern, mute and transposition, and all other live changes."
  onclick={keep}>+ scene of what plays</button
>
{#if scene}
  {@const { id } = scene}
  <TextRow
    label="scene"
    name="Scene name"
    help="Name of the scene."
    value={scene.name}
    commit={(name) => rename(id, name)}
  />
  <SwitchRow name={scene.name} control={{ name: "scene" }} value={id} />
  <div class="flex gap-1 py-1">
    <button
      class="control"
      aria-label="Move the scene left"
      disabled={index === 0}
      onclick={() => session.edit({ setScene: { at: index - 1, scene } })}>←</button
    >
    <button
      class="control"
      aria-label="Move the scene right"
      disabled={index === scenes.length - 1}
      onclick={() => session.edit({ setScene: { at: index + 1, scene } })}>→</button
    >
    <button
      class="control"
      data-help="Write what plays by now over the scene."
      onclick={() =>
        session.edit(() => ({
          setScene: { scene: { id, name: scene.name, values: valuesNow() } },
        }))}>write what plays</button
    >
    <button
      class="control"
      aria-label="Delete the scene"
      data-help="Delete the scene. Undo brings it back."
      onclick={() => session.edit({ removeScene: { scene: id } })}>delete</button
    >
  </div>
  <ul class="py-1" aria-label="Values of the scene">
    {#each scene.values as value, i (i)}
      <li class="border-line flex items-center gap-1 border-b py-0.5">
        <span class="min-w-0 flex-1 truncate text-[12px]" title={words(value)}>{words(value)}</span>
        <button
          class="control h-[22px]!"
          aria-label="Leave out {words(value)}"
          data-help="Leave this out, so that the scene does not change it."
          onclick={() => remove(id, i)}>✕</button
        >
      </li>
    {/each}
  </ul>
{:else}
  <p class="text-ink-2 py-1">
    {scenes.length > 0
      ? "Press a scene to write it."
      : "A scene gives many controls their values at once."}
  </p>
{/if}
