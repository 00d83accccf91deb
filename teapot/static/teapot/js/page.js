/* A page that has nothing of its own. */
import { start } from "./base.js";

start();
