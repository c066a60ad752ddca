// node _shot.mjs URL script.mjs
import { chromium } from "@playwright/test";
const [url, script] = process.argv.slice(2);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox","--disable-gpu","--disable-quic","--no-first-run","--disable-background-networking","--disable-component-update","--disable-sync"] });
const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
page.on("console", (m) => m.type() === "error" && console.log("console:", m.text()));
page.on("pageerror", (e) => console.log("pageerror:", e.message));
page.setDefaultTimeout(20000);
await page.goto(url);
await page.getByRole("button", { name: "Open the demo" }).click();
const shot = (name) => page.screenshot({ path: `/tmp/shots/${name}.png` });
try { await (await import(script)).default(page, shot); } catch (e) { console.log(e.message); await shot("error"); }
await browser.close();
