// Each icon from its own file: the library's index would compile hundreds of them.
export { default as ListOutline } from "flowbite-svelte-icons/ListOutline.svelte";
export { default as MoonOutline } from "flowbite-svelte-icons/MoonOutline.svelte";
export { default as QuestionCircleOutline } from "flowbite-svelte-icons/QuestionCircleOutline.svelte";
export { default as RedoOutline } from "flowbite-svelte-icons/RedoOutline.svelte";
export { default as SunOutline } from "flowbite-svelte-icons/SunOutline.svelte";
export { default as UndoOutline } from "flowbite-svelte-icons/UndoOutline.svelte";
