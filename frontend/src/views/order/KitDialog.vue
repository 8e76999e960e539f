<script setup lang="ts">
/** What the kitchen owns: the sizes of its tins, discs, boards and scrapers, its mat, pin and sheets. */
import { computed, ref, watch } from "vue";
import type { Kit } from "@/api/types";
import { parseLength, UnitError } from "@/base/units";
import { useHandbook } from "@/kitchen/handbook";
import { takeOut } from "@/kitchen/kept";
import { useKit } from "@/kitchen/kit";
import { useSettings } from "@/kitchen/settings";
import MeasureField from "@/ui/MeasureField.vue";
import UnreadWords from "@/ui/UnreadWords.vue";
import { useOpened } from "@/ui/opened";
import FractionText from "@/ui/FractionText.vue";

type Sizes = "discs_mm" | "boards_mm" | "scrapers_mm";

const open = useOpened().opened("kit");
const shelf = useKit();
const settings = useSettings();
const handbook = useHandbook();
const kit = computed(() => shelf.kit);
const typed = ref<Record<string, string>>({});
const wrong = ref<Record<string, string>>({});
const tinShape = ref<Kit["tins"][number]["shape"]>("round");
const boardShape = ref<Kit["shaped_boards"][number]["shape"]>("square");
const LISTS: readonly { name: Sizes; words: string; one: string; limit: string }[] = [
  { name: "discs_mm", words: "Discs, across", one: "disc", limit: "disc_diameter_mm" },
  { name: "boards_mm", words: "Round boards, across", one: "board", limit: "board_diameter_mm" },
  { name: "scrapers_mm", words: "Scrapers, tall", one: "scraper", limit: "scraper_mm" },
];

watch(
  open,
  (now) => {
    if (now) void shelf.open();
  },
  { immediate: true },
);

function remove<T>(list: (kit: Kit) => T[], one: T): void {
  void shelf.change((kit) => takeOut(list(kit), (each) => JSON.stringify(each) === JSON.stringify(one)));
}

/** Set a number of what is owned; an emptied field leaves it as it is. */
function set(value: number | null, how: (kit: Kit, value: number) => void): void {
  if (value !== null) void shelf.change((kit) => how(kit, value));
}

const words = (mm: number): string => settings.words({ value: mm, unit: "mm" });

/** Put what `list` typed into the kit; it stays in its field where it could not be kept. */
async function put(list: string, how: (kit: Kit) => void): Promise<void> {
  const sent = typed.value[list];
  if ((await shelf.change(how)) && typed.value[list] === sent) typed.value = { ...typed.value, [list]: "" };
}

/** A size typed into the field of a list, or a sentence beside it that says what would be accepted. */
function read(list: string, limit: string, owned: readonly number[]): number | null {
  wrong.value = { ...wrong.value, [list]: "" };
  try {
    const value = Math.round(parseLength(typed.value[list] ?? "", settings.length) * 100) / 100;
    const { low, high } = handbook.limit(limit);
    if (value < low || value > high) throw new UnitError(`Type ${words(low)} to ${words(high)}.`);
    if (owned.some((one) => Math.abs(one - value) < 0.05)) throw new UnitError("That one is listed already.");
    return value;
  } catch (error) {
    if (!(error instanceof UnitError)) throw error;
    wrong.value = { ...wrong.value, [list]: error.message };
    return null;
  }
}

function add(list: Sizes, limit: string): void {
  const value = read(list, limit, kit.value?.[list] ?? []);
  if (value === null) return;
  void put(list, (kit) => (kit[list] = [...new Set([...kit[list], value])].sort((a, b) => a - b)));
}

/** Whether things of a shape have a length of their own, which has to be said. */
const oblong = (shape: string): boolean => shape === "rectangle" || shape === "oval";

/** A length typed beside a size, or a sentence that says it is needed; undefined where the shape has none. */
function readLength(list: string, shape: string, limit: string): number | null | undefined {
  if (!oblong(shape)) return undefined;
  const value = read(`${list} long`, limit, []);
  if (value === null && wrong.value[`${list} long`])
    wrong.value = {
      ...wrong.value,
      [list]: `${shape === "oval" ? "An oval" : "A rectangle"} has a length too. ${wrong.value[`${list} long`]}`,
    };
  return value;
}

function addTin(): void {
  const shape = tinShape.value;
  const alike = (kit.value?.tins ?? []).filter((tin) => tin.shape === shape && !oblong(shape));
  const across_mm = read(
    "tins",
    "tin_diameter_mm",
    alike.map((tin) => tin.across_mm),
  );
  const length_mm = readLength("tins", shape, "length_mm");
  if (across_mm === null || length_mm === null) return;
  const depth_mm = shape === "ball" ? across_mm / 2 : 50.8;
  const tin = { shape, across_mm, length_mm, depth_mm: Math.max(20, depth_mm) };
  void put("tins", (kit) => kit.tins.push(tin));
}

function setDepth(index: number, depth: number | null): void {
  set(depth, (kit, depth) => {
    const tin = kit.tins[index];
    if (tin) tin.depth_mm = depth;
  });
}

function addBoard(): void {
  const shape = boardShape.value;
  const across_mm = read("boards", "board_diameter_mm", []);
  const length_mm = readLength("boards", shape, "board_diameter_mm");
  if (across_mm === null || length_mm === null) return;
  void put("boards", (kit) => kit.shaped_boards.push({ shape, across_mm, length_mm }));
}

/** A thing's size from above: across, and long where that is not the same. */
const sizeWords = (one: { across_mm: number; length_mm?: number | null }): string =>
  one.length_mm ? `${words(one.across_mm)} × ${words(one.length_mm)}` : words(one.across_mm);

const tinWords = (tin: Kit["tins"][number]): string =>
  `${sizeWords(tin)} ${handbook.wordOf("tins", tin.shape ?? "round")}`;
const supportWords = (sort: string): string => {
  const found = handbook.wordOf("supports", sort);
  return (found[0]?.toUpperCase() ?? "") + found.slice(1);
};

function setSupport(
  index: number,
  value: number | null,
  how: (support: Kit["supports"][number], value: number) => void,
): void {
  set(value, (kit, value) => {
    const support = kit.supports[index];
    if (support) how(support, value);
  });
}

function addSheet(): void {
  const width_mm = read("sheets", "sheet_side_mm", []);
  if (width_mm === null) return;
  void put("sheets", (kit) => {
    const name = `Sheet ${kit.sheets.length + 1}`;
    kit.sheets.push({ name, width_mm, height_mm: 203.2 });
  });
}
</script>

<template>
  <ElDialog v-model="open" title="What you own" width="640">
    <UnreadWords :words="shelf.unread" />
    <div class="steps">
      <button class="act" :disabled="!shelf.canUndo" @click="shelf.undo()">Undo</button>
      <button class="act" :disabled="!shelf.canRedo" @click="shelf.redo()">Redo</button>
      <span role="status">{{ shelf.underway > 0 ? "Saving …" : "" }}</span>
    </div>
    <p v-if="shelf.trouble" role="alert" class="wrong">{{ shelf.trouble }}</p>
    <div v-if="kit" class="kit">
      <section>
        <h3>Tins</h3>
        <ul>
          <li v-for="(tin, index) in kit.tins" :key="index">
            <FractionText :text="tinWords(tin)" /><button
              class="act"
              :aria-label="`Remove the ${tinWords(tin)} tin`"
              @click="remove((kit) => kit.tins, tin)"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="addTin">
          <input v-model="typed.tins" type="text" aria-label="Another tin, across" placeholder="across" />
          <input
            v-if="oblong(tinShape)"
            v-model="typed['tins long']"
            type="text"
            aria-label="Another tin, long"
            placeholder="long"
          />
          <select v-model="tinShape" aria-label="Another tin: shape">
            <option v-for="one in handbook.words('tins')" :key="one.words" :value="one.value">
              {{ one.words }}
            </option>
          </select>
          <button class="act">Add a tin</button>
        </form>
        <p v-if="wrong.tins" class="wrong" role="alert">{{ wrong.tins }}</p>
        <details>
          <summary>How deep they are</summary>
          <div class="rows">
            <MeasureField
              v-for="(tin, index) in kit.tins"
              :key="index"
              :label="tinWords(tin)"
              :value="tin.depth_mm"
              limit="tin_depth_mm"
              @change="(value) => setDepth(index, value)"
            />
          </div>
        </details>
      </section>
      <section v-for="list in LISTS" :key="list.name">
        <h3>{{ list.words }}</h3>
        <ul>
          <li v-for="one in kit[list.name]" :key="one">
            <FractionText :text="words(one)" /><button
              class="act"
              :aria-label="`Remove the ${words(one)} ${list.one}`"
              @click="remove((kit) => kit[list.name], one)"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="add(list.name, list.limit)">
          <input
            v-model="typed[list.name]"
            type="text"
            :aria-label="`Another ${list.one}`"
            placeholder="size"
          />
          <button class="act">Add a {{ list.one }}</button>
        </form>
        <p v-if="wrong[list.name]" class="wrong" role="alert">{{ wrong[list.name] }}</p>
      </section>
      <section>
        <h3>Boards of other shapes</h3>
        <ul>
          <li v-for="(board, index) in kit.shaped_boards" :key="index">
            <FractionText :text="`${sizeWords(board)} ${board.shape}`" /><button
              class="act"
              :aria-label="`Remove the ${sizeWords(board)} ${board.shape} board`"
              @click="remove((kit) => kit.shaped_boards, board)"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="addBoard">
          <input
            v-model="typed.boards"
            type="text"
            aria-label="Another shaped board, across"
            placeholder="across"
          />
          <input
            v-if="oblong(boardShape)"
            v-model="typed['boards long']"
            type="text"
            aria-label="Another shaped board, long"
            placeholder="long"
          />
          <select v-model="boardShape" aria-label="Another shaped board: shape">
            <option v-for="one in handbook.words('boards owned')" :key="one.words" :value="one.value">
              {{ one.words }}
            </option>
          </select>
          <button class="act">Add a shaped board</button>
        </form>
        <p v-if="wrong.boards" class="wrong" role="alert">{{ wrong.boards }}</p>
      </section>
      <section>
        <h3>Printed sheets</h3>
        <ul>
          <li v-for="(sheet, index) in kit.sheets" :key="index">
            <FractionText :text="`${words(sheet.width_mm)} × ${words(sheet.height_mm)}`" /><button
              class="act"
              :aria-label="`Remove the sheet ${sheet.name}`"
              @click="remove((kit) => kit.sheets, sheet)"
            >
              ×
            </button>
          </li>
        </ul>
        <form @submit.prevent="addSheet">
          <input v-model="typed.sheets" type="text" aria-label="Another sheet, wide" placeholder="wide" />
          <button class="act">Add a sheet</button>
        </form>
        <p v-if="wrong.sheets" class="wrong" role="alert">{{ wrong.sheets }}</p>
        <div class="rows">
          <MeasureField
            v-for="(sheet, index) in kit.sheets"
            :key="index"
            :label="`${sheet.name}, high`"
            :value="sheet.height_mm"
            limit="sheet_side_mm"
            @change="
              (value) =>
                set(value, (kit, high) => Object.assign(kit.sheets[index] ?? {}, { height_mm: high }))
            "
          />
        </div>
      </section>
      <section>
        <h3>Mat, pin and smoothers</h3>
        <div class="rows">
          <MeasureField
            label="Mat, wide"
            :value="kit.mat.width_mm"
            limit="mat_mm"
            @change="(value) => set(value, (kit, value) => (kit.mat.width_mm = value))"
          />
          <MeasureField
            label="Mat, deep"
            :value="kit.mat.length_mm"
            limit="mat_mm"
            @change="(value) => set(value, (kit, value) => (kit.mat.length_mm = value))"
          />
          <MeasureField
            label="Rolling pin, long"
            :value="kit.pin_mm"
            limit="pin_mm"
            @change="(value) => set(value, (kit, value) => (kit.pin_mm = value))"
          />
          <MeasureField
            label="Smoothers"
            :value="kit.smoothers"
            limit="owned"
            @change="(value) => set(value, (kit, value) => (kit.smoothers = value))"
          />
        </div>
      </section>
      <section class="whole">
        <h3>Supports</h3>
        <div v-for="(one, index) in kit.supports" :key="one.sort" class="support">
          <h4>{{ supportWords(one.sort) }}</h4>
          <div class="rows">
            <MeasureField
              label="Thick"
              :value="one.across_mm"
              limit="support_across_mm"
              @change="(value) => setSupport(index, value, (support, value) => (support.across_mm = value))"
            />
            <MeasureField
              label="Sold, long"
              :value="one.length_mm"
              limit="rod_mm"
              @change="(value) => setSupport(index, value, (support, value) => (support.length_mm = value))"
            />
            <MeasureField
              :label="one.tested ? 'One bears, by your test' : 'One bears, from memory'"
              :value="one.bears_g"
              limit="bears_g"
              @change="
                (value) =>
                  setSupport(index, value, (support, value) =>
                    Object.assign(support, { bears_g: value, tested: true }),
                  )
              "
            />
          </div>
        </div>
        <details>
          <summary>How to find what one of yours bears</summary>
          <ol>
            <li v-for="step in handbook.book?.support_test" :key="step">{{ step }}</li>
          </ol>
        </details>
      </section>
    </div>
  </ElDialog>
</template>

<style scoped>
.steps {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 12px;
}

.kit {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 18px 28px;
}

h3 {
  margin: 0 0 6px;
  font-size: 18px;
}

ul {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}

li {
  display: flex;
  align-items: center;
  padding-left: 9px;
  border: 1px solid var(--rule);
}

li .act {
  width: 40px;
  padding: 0;
  border: 0;
  background: none;
  font-size: 18px;
}

form {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  margin-top: 8px;
}

form input,
form select {
  width: 8ch;
  padding: 0 4px;
  font: 600 17px var(--serif);
}

form select {
  width: auto;
}

.whole {
  grid-column: 1 / -1;
}

.support {
  display: inline-block;
  width: calc(50% - 18px);
  margin: 0 16px 10px 0;
}

h4 {
  margin: 6px 0 0;
  font-size: 16px;
}

summary {
  min-height: 44px;
  padding-top: 10px;
  color: var(--soft);
  cursor: pointer;
}

.wrong {
  color: var(--trouble);
}
</style>
