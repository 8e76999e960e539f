/** The papers of the order on the bench, to take away. What was just edited is saved first, so that they say it too. */
import { answered, api } from "@/api/client";
import { useSettings } from "@/kitchen/settings";
import { useOrder } from "./order";

export function usePapers() {
  const order = useOrder();
  const settings = useSettings();

  async function take(file: string): Promise<void> {
    await order.save();
    window.location.assign(`/api/orders/${order.id}/${file}`);
  }

  /** One that is printed on this person's paper and in this person's units. */
  async function takePrinted(file: string): Promise<void> {
    await take(`${file}?paper=${settings.paper}&length=${settings.length}&weight=${settings.weight}`);
  }

  /** On how many pages the templates are printed, as the order was saved last. */
  async function pagesOf(asked: { tier: number | null; whole: boolean }): Promise<number> {
    const params = { path: { id: order.id }, query: { ...asked, paper: settings.paper } };
    return (await answered(api.GET("/api/orders/{id}/templates/pages", { params }))).pages;
  }

  return { take, takePrinted, pagesOf };
}
