<!-- @component A dialog that gives the focus back to where it was. -->
<script lang="ts">
  import Modal from "flowbite-svelte/Modal.svelte";
  import type { Snippet } from "svelte";
  import NoticeList from "../notices/NoticeList.svelte";

  interface Props {
    open: boolean;
    title: string;
    size?: "sm" | "md" | "lg";
    children: Snippet;
  }
  let { open = $bindable(), title, size = "sm", children }: Props = $props();

  let before: Element | null = null;

  $effect.pre(() => {
    if (open) before = document.activeElement;
    else if (before instanceof HTMLElement) before.focus();
  });
</script>

<Modal
  bind:open
  {title}
  {size}
  class="rounded!"
  classes={{ header: "p-3! text-[15px]!", body: "p-3!" }}
>
  {#if open}
    {@render children()}
    <NoticeList inDialog />
  {/if}
</Modal>
