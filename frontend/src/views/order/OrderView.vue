<script setup lang="ts">
/** An order: lenses at the left, the half-section, the lens's own decisions, and the bowls below. */
import { computed, onBeforeUnmount, onMounted, ref, watch } from "vue";
import { onBeforeRouteLeave, useRouter } from "vue-router";
import { answered, api, Refused, UNREAD } from "@/api/client";
import { dueWords } from "@/base/time";
import HalfSection from "@/drawing/HalfSection.vue";
import { usePantry } from "@/kitchen/pantry";
import { useSettings } from "@/kitchen/settings";
import { lensCalled, LENSES } from "@/lenses";
import { useOrder } from "@/order/order";
import { useDesk } from "@/ui/desk";
import TextField from "@/ui/TextField.vue";
import UnitsMenu from "@/ui/UnitsMenu.vue";
import { asked, hideWorking } from "@/ui/working";
import WorkingCard from "@/ui/WorkingCard.vue";
import BowlStrip from "./BowlStrip.vue";
import KeysDialog from "./KeysDialog.vue";
import KitDialog from "./KitDialog.vue";
import QuickLine from "./QuickLine.vue";
import SavedState from "./SavedState.vue";
import StaleDialog from "./StaleDialog.vue";
import StrayDraft from "./StrayDraft.vue";
import UnreadOrder from "./UnreadOrder.vue";
import VersionsDialog from "./VersionsDialog.vue";

const props = defineProps<{ id: string; lens?: string }>();
const router = useRouter();
const order = useOrder();
const desk = useDesk();
const pantry = usePantry();
const settings = useSettings();
const trouble = ref("");
const unread = ref("");
const keysOpen = ref(false);
const versionsOpen = ref(false);
const kitOpen = ref(false);
const lineOpen = ref(false);

const current = computed(() => lensCalled(props.lens));
const below = computed(() => {
  const tier = order.plan?.tiers[order.tier];
  return tier && current.value.below?.shown(tier) ? current.value.below.what : null;
});
const attention = computed(() => {
  const found = new Map<string, string>();
  for (const check of order.plan?.checks ?? []) {
    if (check.severity === "caution") continue;
    if (check.severity === "trouble" || !found.has(check.lens)) found.set(check.lens, check.severity);
  }
  return found;
});

async function begin(): Promise<void> {
  trouble.value = "";
  unread.value = "";
  try {
    await order.open(props.id);
  } catch (error) {
    if (error instanceof Refused && error.problem.type === UNREAD) unread.value = error.problem.detail;
    trouble.value =
      error instanceof Refused && error.problem.status < 500
        ? "There is no such order. It may have been opened from an old link."
        : "The kitchen's server cannot be reached just now. Your orders are safe where they are.";
  }
}

function look(lens: string): void {
  void router.replace({ name: "order", params: { id: props.id, lens } });
}

const panel = ref<HTMLElement>();
function skip(): void {
  panel.value?.focus();
}
/** Every lens opens at its head. */
watch(
  () => current.value.name,
  () => panel.value?.scrollTo({ top: 0 }),
  { flush: "post" },
);

async function duplicate(): Promise<void> {
  await order.flush();
  try {
    const params = { path: { id: order.id } };
    const copy = await answered(api.POST("/api/orders/{id}/duplicate", { params }));
    await router.push({ name: "order", params: { id: copy.id, lens: current.value.name } });
  } catch {
    trouble.value = "The copy could not be made just now. Nothing was changed.";
  }
}

async function archive(): Promise<void> {
  await order.flush();
  try {
    const params = { path: { id: order.id } };
    await answered(api.POST("/api/orders/{id}/archive", { params }));
    await router.push("/");
  } catch {
    trouble.value = "The order could not be taken off the shelf just now. Nothing was changed.";
  }
}

/** One of the order's papers to take away, in this person's units; what was just edited is saved first. */
async function takePaper(file: string): Promise<void> {
  await order.save();
  const paper = settings.length === "in" ? "letter" : "a4";
  window.location.assign(
    `/api/orders/${order.id}/${file}?paper=${paper}&length=${settings.length}&weight=${settings.weight}`,
  );
}

async function saveFile(): Promise<void> {
  await order.flush();
  window.location.assign(`/api/orders/${order.id}/file`);
}

const TYPING = "input, textarea, select, [role=dialog], .el-select";

/** Whether a key belongs to what has the focus: all keys to a text field, the arrows to a row of choices. */
function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as Element;
  if (target.matches("input[type=radio]") && !target.closest("[role=dialog]"))
    return event.key.startsWith("Arrow");
  return target.closest(TYPING) !== null;
}

function onKey(event: KeyboardEvent): void {
  const command = event.ctrlKey || event.metaKey;
  const key = event.key.toLowerCase();
  if (command && key === "s") {
    event.preventDefault();
    (document.activeElement as HTMLElement | null)?.blur();
    void order.save();
  } else if (command && key === "p") {
    event.preventDefault();
    void takePaper("plate.pdf");
  } else if (
    command &&
    (key === "z" || key === "y") &&
    !(event.target as Element).closest("input[type=text]:focus")
  ) {
    event.preventDefault();
    if (key === "y" || event.shiftKey) order.redo();
    else void order.undo();
  } else if (event.key === "Escape" && asked.value) {
    hideWorking();
  } else if (settings.singleKeys && !command && !event.altKey && !isTyping(event)) {
    const lens = LENSES[Number(event.key) - 1];
    if (lens) look(lens.name);
    else if (event.key === "?") keysOpen.value = true;
    else if (event.key === "/") {
      event.preventDefault();
      lineOpen.value = true;
    } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
      event.preventDefault();
      order.step(event.key === "ArrowUp" ? 1 : -1);
    }
  }
}

function warnIfUnsaved(event: BeforeUnloadEvent): void {
  if (order.status === "refused" || order.status === "stale" || order.undrafted || pantry.underway > 0)
    event.preventDefault();
}

watch(() => props.id, begin);
watch([() => props.lens, () => order.tier], () => (asked.value = null));
watch(
  () => order.document?.title,
  (title) => (document.title = title ? `${title} · Amber Spread` : "Amber Spread"),
);
onMounted(() => {
  window.addEventListener("keydown", onKey);
  window.addEventListener("beforeunload", warnIfUnsaved);
  void begin();
  void pantry.open();
});
onBeforeUnmount(() => {
  window.removeEventListener("keydown", onKey);
  window.removeEventListener("beforeunload", warnIfUnsaved);
  asked.value = null;
});
onBeforeRouteLeave(async () => {
  await order.flush();
});
</script>

<template>
  <UnreadOrder v-if="unread" :id="id" :reason="unread" @readable="begin" />
  <main v-else-if="trouble && !order.document" class="lost">
    <h1>{{ trouble }}</h1>
    <p><RouterLink to="/">Back to the shelf</RouterLink></p>
    <button class="act main" @click="begin">Try again</button>
  </main>
  <div v-else-if="order.document" class="order">
    <a class="skip" href="#decided" @click.prevent="skip">Skip to what is decided</a>
    <header class="bar">
      <RouterLink to="/" class="brand" aria-label="Amber Spread: back to the shelf"
        >Amber <b>Spread</b></RouterLink
      >
      <h1 class="title">
        <TextField
          label="Title"
          :value="order.document.title"
          :most="80"
          pointer="#/title"
          @change="(text) => order.edit((draft) => (draft.title = text))"
        />
      </h1>
      <span class="due">{{ dueWords(order.document.due) }}</span>
      <span class="grow" />
      <button class="act bare" :disabled="!order.canUndo" @click="order.undo()">Undo</button>
      <button class="act bare" :disabled="!order.canRedo" @click="order.redo()">Redo</button>
      <ElDropdown trigger="click" placement="bottom-end">
        <button class="act bare">Order</button>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem @click="duplicate">Duplicate it</ElDropdownItem>
            <ElDropdownItem @click="takePaper('plate.pdf')">Plate to print (PDF)</ElDropdownItem>
            <ElDropdownItem @click="takePaper('plate.svg')">Plate as a drawing (SVG)</ElDropdownItem>
            <ElDropdownItem @click="takePaper('bench.pdf')">Bench sheet (PDF)</ElDropdownItem>
            <ElDropdownItem @click="saveFile">Save as a file</ElDropdownItem>
            <ElDropdownItem @click="versionsOpen = true">Versions</ElDropdownItem>
            <ElDropdownItem @click="archive">Take it off the shelf</ElDropdownItem>
            <ElDropdownItem @click="lineOpen = true">The cake in one line</ElDropdownItem>
            <ElDropdownItem @click="kitOpen = true">What you own</ElDropdownItem>
            <ElDropdownItem @click="router.push({ name: 'pantry' })">Recipes and prices</ElDropdownItem>
            <ElDropdownItem @click="router.push({ name: 'usual' })">Our usual</ElDropdownItem>
            <ElDropdownItem divided @click="keysOpen = true">Keys</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <UnitsMenu />
      <SavedState />
    </header>
    <nav class="spine" aria-label="Lenses">
      <button
        v-for="(one, index) in LENSES"
        :key="one.name"
        :class="{ chosen: one.name === current.name }"
        :aria-current="one.name === current.name ? 'page' : undefined"
        @click="look(one.name)"
      >
        <span class="key">{{ index + 1 }}</span>
        <span>{{ one.words }}</span>
        <span v-if="attention.has(one.name)" class="mark" :class="attention.get(one.name)">
          <span class="unseen">needs attention</span>
        </span>
      </button>
    </nav>
    <main class="middle" :class="{ halved: below, beside: below && current.below?.beside }">
      <p v-if="order.planUnreachable" class="banner" role="alert">
        The kitchen's server cannot be reached. Your edits are kept in this browser; the figures will follow
        when it is back.
      </p>
      <p v-else-if="desk.complaints.length" class="banner" role="alert">
        These figures are from before the last edit: {{ desk.complaints[0]?.field }}
        {{ desk.complaints[0]?.message }}.
      </p>
      <p v-if="trouble" class="banner" role="alert">{{ trouble }}</p>
      <p v-if="order.behind && order.plan && !order.planUnreachable" class="behind" role="status">
        Being worked out; the figures are from before the last edit.
        <button class="act" @click="order.undo()">Stop</button>
      </p>
      <StrayDraft />
      <component :is="current.middle" v-if="current.middle" />
      <HalfSection
        v-else
        :notes="current.notes"
        :over="current.over"
        :by-plate="current.byPlate"
        :heights="current.heights"
        :glass="current.glass"
      />
      <component :is="below" v-if="below" />
    </main>
    <aside id="decided" ref="panel" class="panel" tabindex="-1" :aria-label="`${current.name} lens`">
      <component :is="current.panel" />
    </aside>
    <footer v-if="!current.ownBowls" class="foot"><BowlStrip /></footer>
    <WorkingCard :names="(order.plan?.tiers ?? []).map((tier) => tier.name)" />
    <StaleDialog />
    <VersionsDialog v-model="versionsOpen" />
    <KeysDialog v-model="keysOpen" />
    <KitDialog v-model="kitOpen" />
    <QuickLine v-model="lineOpen" />
  </div>
  <main v-else class="lost" aria-live="polite"><p>Opening the order …</p></main>
</template>

<style scoped>
/* Said only where it takes long enough to be noticed. */
.behind {
  position: absolute;
  z-index: 3;
  top: 8px;
  left: 50%;
  display: flex;
  gap: 14px;
  align-items: center;
  width: max-content;
  max-width: calc(100% - 24px);
  margin: 0;
  padding: 6px 6px 6px 16px;
  border: 1px solid var(--rule);
  background: var(--panel);
  translate: -50% 0;
  animation: appear 1ms 0.7s both;
}

@keyframes appear {
  from {
    visibility: hidden;
  }
}

.order {
  display: grid;
  grid-template: auto minmax(0, 1fr) auto / 112px minmax(0, 1fr) 352px;
  grid-template-areas: "bar bar bar" "spine middle panel" "foot foot foot";
  height: 100%;
  min-height: 540px;
}

.bar {
  grid-area: bar;
  gap: 8px;
  padding: 0 14px 0 22px;
}

.title {
  flex: 100 1 130px;
  max-width: 250px;
  margin-left: 14px;
}

.title :deep(input) {
  border-bottom-color: transparent;
  font-size: 19px;
}

.title :deep(input:hover),
.title :deep(input:focus) {
  border-bottom-color: var(--amber-line);
}

.due {
  overflow: hidden;
  min-width: 0;
  color: var(--soft);
  text-overflow: ellipsis;
  white-space: nowrap;
}

.grow {
  flex: 1;
}

.skip {
  position: absolute;
  z-index: 9;
  top: -60px;
  left: 12px;
  padding: 10px 14px;
  background: var(--panel);
}

.skip:focus {
  top: 6px;
}

.spine {
  grid-area: spine;
  padding-top: 16px;
  border-right: 1px solid var(--rule);
}

.spine button {
  display: flex;
  align-items: center;
  gap: 9px;
  width: 100%;
  min-height: 46px;
  padding: 0 8px 0 16px;
  border: 0;
  border-left: 4px solid transparent;
  background: none;
  font-size: 17px;
  text-align: left;
  cursor: pointer;
}

.spine button:focus-visible {
  outline-offset: -4px;
}

.spine button:hover {
  background: var(--bar);
}

.spine .chosen {
  border-color: var(--amber-line);
  background: var(--tint);
  font-family: var(--serif);
  font-weight: 600;
}

.key {
  color: var(--soft);
  font: 14px var(--sans);
}

.mark {
  flex: none;
  width: 9px;
  height: 9px;
  margin-left: auto;
  border: 2px solid var(--amber-line);
}

.mark.trouble {
  border-color: var(--trouble);
  background: var(--trouble);
}

.middle {
  grid-area: middle;
  position: relative;
  min-width: 0;
}

.middle.halved {
  display: grid;
  grid-template-rows: minmax(0, 1fr) 42%;
}

.middle.beside {
  grid-template: minmax(0, 1fr) / minmax(0, 1fr) 31%;
}

.banner {
  position: absolute;
  z-index: 2;
  right: 12px;
  left: 12px;
  top: 8px;
  padding: 8px 12px;
  border-left: 4px solid var(--trouble);
  background: var(--panel);
}

.panel {
  grid-area: panel;
  position: relative;
  overflow: hidden auto;
  padding: 18px 20px 26px;
  border-left: 1px solid var(--rule);
  background: var(--panel);
}

/* It takes the focus from the link that skips to it, and shows that by its own head. */
.panel:focus {
  outline: none;
}

.panel :deep(.rows > *) {
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}

.panel :deep(h3) {
  margin: 16px 0 6px;
  font-size: 19px;
}

.panel :deep(fieldset) {
  margin: 10px 0 6px;
}

.panel :deep(.same) {
  display: grid;
  gap: 8px;
  margin-top: 14px;
}

.panel :deep(.same.two) {
  grid-template-columns: 1fr 1fr;
}

.panel :deep(.reach) {
  display: grid;
  gap: 8px;
  padding: 10px 0;
}

.panel :deep(.row.main) {
  margin-top: 12px;
}

.foot {
  grid-area: foot;
  overflow: hidden;
  border-top: 1px solid var(--rule);
  background: var(--shelf);
}

.lost {
  display: grid;
  gap: 16px;
  place-content: center;
  justify-items: start;
  height: 100%;
}

@media (width < 1180px) {
  .order {
    grid-template-columns: 100px minmax(0, 1fr) 320px;
  }

  .due {
    display: none;
  }

  .spine button {
    padding-left: 10px;
  }
}

/* Printed by the browser's own menu: the drawing and what is decided, without what is pressed. */
@media print {
  .order {
    display: block;
    height: auto;
  }

  .spine,
  .foot,
  .bar .act,
  .bar :deep(.units),
  .bar :deep(.state) {
    display: none;
  }

  .middle {
    height: 150mm;
    break-inside: avoid;
  }

  .panel {
    overflow: visible;
    border: 0;
  }
}

/* One column: lenses as a row, the drawing first, then what is decided, then the bowls. The page scrolls. */
@media (width < 900px) {
  .order {
    grid-template: auto auto auto auto auto / minmax(0, 1fr);
    grid-template-areas: "bar" "spine" "middle" "panel" "foot";
    height: auto;
    min-height: 100%;
  }

  .bar {
    gap: 2px;
    padding: 0 10px;
  }

  .grow {
    display: none;
  }

  .title {
    margin-left: 4px;
  }

  .spine {
    position: sticky;
    top: 0;
    z-index: 4;
    display: flex;
    padding: 0;
    overflow-x: auto;
    border-right: 0;
    border-bottom: 1px solid var(--rule);
    background: var(--paper);
  }

  .spine button {
    flex: 1 0 auto;
    gap: 6px;
    width: auto;
    min-height: 48px;
    padding: 0 12px;
    border-bottom: 4px solid transparent;
    border-left: 0;
  }

  .spine .key {
    display: none;
  }

  .middle {
    height: clamp(340px, 60vh, 640px);
  }

  .middle.halved,
  .middle.beside {
    grid-template: minmax(0, 1fr) 40% / minmax(0, 1fr);
    height: clamp(560px, 92vh, 980px);
  }

  .panel {
    overflow: visible;
    border-top: 1px solid var(--rule);
    border-left: 0;
  }
}
</style>
