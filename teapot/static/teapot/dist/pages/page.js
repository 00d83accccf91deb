import{n as r}from"./shared-WINCICWC.js";r();
