/** The keys that work in an order, wherever the focus is. */
import { onBeforeUnmount, onMounted } from "vue";
import { useSettings } from "@/kitchen/settings";
import { lensByKey } from "@/lenses";
import { useOrder } from "@/order/order";
import { usePapers } from "@/order/papers";
import { useOpened } from "@/ui/opened";
import { asked, hideWorking } from "@/ui/working";

const TYPING = "input, textarea, select, [role=dialog], .el-select";

/** Whether a key belongs to what has the focus: all keys to a text field, the arrows to a row of choices. */
function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as Element;
  if (target.matches("input[type=radio]") && !target.closest("[role=dialog]"))
    return event.key.startsWith("Arrow");
  return target.closest(TYPING) !== null;
}

/** `look` looks through another lens. */
export function useKeys(look: (lens: string) => void): void {
  const order = useOrder();
  const settings = useSettings();
  const { takePrinted } = usePapers();
  const { open } = useOpened();

  function onKey(event: KeyboardEvent): void {
    const command = event.ctrlKey || event.metaKey;
    const key = event.key.toLowerCase();
    if (command && key === "s") {
      event.preventDefault();
      (document.activeElement as HTMLElement | null)?.blur();
      void order.save();
    } else if (command && key === "p") {
      event.preventDefault();
      void takePrinted("plate.pdf");
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
      const lens = lensByKey(event.key);
      if (lens) look(lens.name);
      else if (event.key === "?") open("words");
      else if (event.key === "/") {
        event.preventDefault();
        open("line");
      } else if (event.key === "ArrowUp" || event.key === "ArrowDown") {
        event.preventDefault();
        order.step(event.key === "ArrowUp" ? 1 : -1);
      }
    }
  }

  onMounted(() => {
    window.addEventListener("keydown", onKey);
  });
  onBeforeUnmount(() => {
    window.removeEventListener("keydown", onKey);
  });
}
