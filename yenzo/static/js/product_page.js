// What a product's page runs. Pages load one script with all that shares a state.
import "./page.js";
import "./slip.js";
import "./hand.js";
import "./own_items.js";
import "./crop.js";
import "./unfinished.js";
import "./size.js";
import "./album.js";
