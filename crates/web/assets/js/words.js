// The words of the scripts, in the language of the page: they stand in it, so that they are there without a line, too.
const texts = JSON.parse(document.getElementById("script-words")?.textContent ?? "{}");

/** A text by its code, filled with values. */
export const words = (code, values = {}) => (texts[code] ?? code).replace(/\{(\w+)\}/g, (_, name) => values[name] ?? "");

/** A number as the language writes it. */
export const number = (n) => String(n).replace(".", texts["script-point"] ?? ".");

/** What is typed, as a number. */
export const typed = (text) => Number(text.trim().replace(",", "."));

/** How dates and times are written. */
export const locale = document.documentElement.lang === "en" ? "en-GB" : document.documentElement.lang;
