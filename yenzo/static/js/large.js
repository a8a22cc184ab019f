// Pictures that are looked at large: in a window of the page; without scripts their links lead to them.

const window_ = document.createElement("dialog"), image = document.createElement("img");
window_.className = "large";
window_.append(image);
document.body.append(window_);

document.addEventListener("click", (event) => {
  const link = event.target.closest?.("[data-large]");
  if (link) {
    event.preventDefault();
    image.src = link.href;
    image.alt = link.querySelector("img").alt;
    window_.setAttribute("aria-label", image.alt);
    window_.showModal();
  } else if (event.target.closest?.("dialog.large")) {
    window_.close();
  }
});
