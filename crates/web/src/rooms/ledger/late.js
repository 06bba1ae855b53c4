// Late entry: what a spreadsheet put on the clipboard goes into the grid from the cell on; Enter goes to the same column of the next
// line. What is typed stays through a reload.
import { ready } from '../../js/app.js';

const form = document.getElementById('late');
const grid = form.querySelector('.late-grid');
const cells = () => [...grid.tBodies[0].rows].map((r) => [...r.querySelectorAll('input,select')]);

function at(field) {
  const all = cells();
  const row = all.findIndex((r) => r.includes(field));
  return row < 0 ? null : { all, row, column: all[row].indexOf(field) };
}

function put(field, text) {
  if (field.tagName !== 'SELECT') { field.value = text; return; }
  const word = text.trim().toLowerCase();
  const found = [...field.options].find((o) => o.value && (o.value === word.replaceAll(' ', '_') || o.text.toLowerCase() === word));
  field.value = found ? found.value : '';
}

grid.addEventListener('paste', (e) => {
  const text = e.clipboardData.getData('text/plain');
  const from = at(e.target);
  if (!from || !/[\t\n]/.test(text.trim())) return;
  e.preventDefault();
  text.replace(/\r/g, '').replace(/\n$/, '').split('\n').forEach((line, i) => {
    line.split('\t').forEach((value, j) => {
      const field = from.all[from.row + i]?.[from.column + j];
      if (field) put(field, value.trim());
    });
  });
  keep();
});

grid.addEventListener('keydown', (e) => {
  if (e.key !== 'Enter' || e.target.tagName === 'SELECT') return;
  const from = at(e.target);
  if (!from) return;
  e.preventDefault();
  from.all[from.row + 1]?.[from.column]?.focus();
});

// A draft of one sitting: the ledger throws it away once it says that it was kept (kept.js).
const key = 'slow-rise-late';
function keep() {
  const all = cells().map((r) => r.map((f) => f.value));
  sessionStorage.setItem(key, JSON.stringify({ all, csv: form.csv.value, form_key: form.form_key.value }));
}
form.addEventListener('input', keep);
form.addEventListener('submit', keep);
const held = sessionStorage.getItem(key);
if (held && form.dataset.fresh === 'yes') {
  const draft = JSON.parse(held);
  cells().forEach((r, i) => r.forEach((f, j) => { f.value = draft.all[i]?.[j] ?? ''; }));
  form.csv.value = draft.csv;
  form.form_key.value = draft.form_key;
}
ready();
