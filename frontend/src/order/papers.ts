/** The papers of the order on the bench, to take away. What was just edited is saved first, so that they say it too. */
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "./order";

export function usePapers() {
  const order = useOrder();
  const settings = useSettings();

  async function take(file: string): Promise<void> {
    await order.save();
    window.location.assign(`/api/orders/${order.id}/${file}`);
  }

  /** One that is printed in this person's units; on Letter where those are inches, unless another paper is asked for. */
  async function takePrinted(file: string, paper?: string): Promise<void> {
    const on = paper ?? (settings.length === "in" ? "letter" : "a4");
    await take(`${file}?paper=${on}&length=${settings.length}&weight=${settings.weight}`);
  }

  return { take, takePrinted };
}
