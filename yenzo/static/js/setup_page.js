// What the page of a set-up runs. Pages load one script with all that shares a state.
import "./page.js";
import "./bench.js";
import "./marks.js";
import "./lines.js";
import "./slip.js";
import "./hand.js";
import "./own_items.js";
import "./crop.js";
