/** What every test finds of a browser: where the page is from, and what language it is read in. */
import { vi } from "vitest";

vi.stubGlobal("location", { origin: "http://kitchen.test" });
vi.stubGlobal("navigator", { languages: ["en-GB"] });
