// The paper: a button that opens the printer's dialog.
document.documentElement.classList.add("js-on");
document.getElementById("do-print").addEventListener("click", () => print());
document.documentElement.dataset.ready = "1";
