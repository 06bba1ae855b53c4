// A part of a page that came back drawn goes into its place.

/** Puts a part in place; a field that is being typed into keeps its text and its focus, what was open stays open. */
export function replace(box, html) {
  const typing = box.contains(document.activeElement) ? document.activeElement : null;
  const kept = [...box.querySelectorAll("input:not([type=hidden])")].filter((i) => i.id && i.value !== i.defaultValue).map((i) => [i.id, i.value]);
  const said = [...box.querySelectorAll(".err")].map((e) => [e.id, e.textContent]).filter(([id, text]) => id && text);
  const open = [...box.querySelectorAll("details")].map((d) => d.open);
  box.innerHTML = html;
  for (const [id, value] of kept) if (document.getElementById(id)) document.getElementById(id).value = value;
  for (const [id, text] of said) if (document.getElementById(id)) document.getElementById(id).textContent = text;
  box.querySelectorAll("details").forEach((d, i) => (d.open = open[i] ?? d.open));
  if (typing) (typing.id ? document.getElementById(typing.id) : box.querySelector(`[value="${CSS.escape(typing.value ?? "")}"]`))?.focus();
}
