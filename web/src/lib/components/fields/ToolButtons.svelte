<!-- @component What the pointer does: a button a tool, one of which is pressed. -->
<script lang="ts" generics="T extends string">
  interface Props {
    tools: readonly { tool: T; help: string }[];
    value: T;
    select: (tool: T) => void;
  }
  let { tools, value, select }: Props = $props();
</script>

<span class="flex" role="group" aria-label="Tool">
  {#each tools as { tool, help } (tool)}
    <button
      class="control h-[24px]! rounded-none! text-[12px]! not-first:ml-[-1px]"
      aria-pressed={value === tool}
      data-help={help}
      onclick={() => select(tool)}>{tool}</button
    >
  {/each}
</span>
