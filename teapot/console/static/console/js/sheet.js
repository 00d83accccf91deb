/* The page of a sheet. */
import { start } from "../../teapot/js/base.js";
import "./entry.js";
import "./signs.js";
import "./lines.js";
import "./given.js";
import "./asked.js";
import "./runs.js";
import "./elsewhere.js";
import "./items.js";
import "./cells.js";
import "./dial.js";
import "./plane.js";
import "./wide.js";
import "./graphs.js";
import "./drawer.js";

start();
