/** What every test finds of a browser: where the page is from. */
import { vi } from "vitest";

vi.stubGlobal("location", { origin: "http://kitchen.test" });
