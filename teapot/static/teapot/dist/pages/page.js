import{p as r}from"./shared-2JTP6WNA.js";r();
