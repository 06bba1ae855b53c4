// What was written down later is kept: its draft is not needed any more. Another one that was begun since stays.
import { ready } from "../../js/app.js";

const form = document.getElementById("kept")?.dataset.form;
const held = sessionStorage.getItem("slow-rise-late");
if (held && JSON.parse(held).form_key === form) sessionStorage.removeItem("slow-rise-late");
ready();
