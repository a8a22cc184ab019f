// What a page with an order slip beside the shop's own runs. Pages load one script with all that shares a state.
import "./page.js";
import "./slip.js";
import "./hand.js";
import "./own_items.js";
import "./crop.js";
