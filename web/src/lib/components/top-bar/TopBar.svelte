<!-- @component What holds on every screen: the project, where one is, and the playing. -->
<script lang="ts">
  import type { DialogName } from "../dialogs/names";
  import HistoryButtons from "./HistoryButtons.svelte";
  import { MoonOutline, QuestionCircleOutline, SunOutline } from "./icons";
  import type { Screen } from "./screen";
  import { getSession } from "../../state/context";
  import type { Theme } from "../../state/theme.svelte";
  import KeyFields from "./KeyFields.svelte";
  import LuckFields from "./LuckFields.svelte";
  import MeterButton from "./MeterButton.svelte";
  import TempoField from "./TempoField.svelte";
  import TransportButtons from "./TransportButtons.svelte";

  interface Props {
    screens: readonly Screen[];
    /** The one that is shown. */
    screen: Screen;
    theme: Theme;
    /** Opens the dialog of that name. */
    open: (dialog: DialogName) => void;
  }
  let { screens, screen, theme, open }: Props = $props();

  const session = getSession();
  const themes = {
    light: { label: "Light theme", help: "Light theme: dark on light." },
    dark: { label: "Dark theme", help: "Dark theme: light on dark." },
    dim: { label: "Dim theme", help: "Dim theme: red on black, for dark rooms." },
  };
</script>

<header
  data-area
  class="border-ink flex h-[52px] items-center gap-x-3 border-b-2 px-3 max-[1400px]:gap-x-2 max-[1150px]:gap-x-1 max-[1150px]:px-2"
>
  <a
    class="max-w-[150px] min-w-[30px] shrink truncate text-[15px] font-semibold hover:underline max-[1150px]:hidden"
    title={session.project.name}
    href="#library"
    data-help="The project that is open: rename it, export it, open another."
  >
    {session.project.name}
  </a>
  <nav
    class="flex gap-3 max-[1400px]:gap-2 max-[1300px]:text-[12px] max-[1150px]:gap-1 max-[1150px]:text-[11px]"
    aria-label="Screens"
  >
    {#each screens as { name, address, help } (address)}
      <a
        href="#{address}"
        class={[
          "border-y-2 border-t-transparent py-0.5",
          screen.address === address ? "border-b-signal" : "text-ink-2 border-b-transparent",
        ]}
        aria-current={screen.address === address ? "page" : undefined}
        data-help={help}>{name}</a
      >
    {/each}
  </nav>
  <TransportButtons {open} />
  <TempoField />
  <MeterButton openTime={() => open("time")} />
  <KeyFields openKey={() => open("key")} />
  <LuckFields compare={() => open("luck")} />
  <div class="ml-auto flex items-center gap-1">
    {#if session.locked}
      <button
        class="control"
        aria-pressed="true"
        data-help="Editing is locked in this page: nothing that is written changes. Press to unlock it."
        onclick={() => (session.locked = false)}>unlock editing</button
      >
    {:else}
      <HistoryButtons {open} />
    {/if}
    <button
      class="control ml-1"
      aria-label={themes[theme.next].label}
      data-help={themes[theme.next].help}
      onclick={() => theme.turn()}
    >
      {#if theme.name === "light"}<MoonOutline class="h-4 w-4" />{:else}<SunOutline
          class="h-4 w-4"
        />{/if}
    </button>
    <button
      class="control"
      aria-label="Help"
      data-help="Help: all keys and how to read the chart. ?"
      onclick={() => open("help")}
    >
      <QuestionCircleOutline class="h-4 w-4" />
    </button>
  </div>
</header>
