import{n as r}from"./shared-TDR6OFTB.js";r();
