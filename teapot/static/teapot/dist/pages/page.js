import{n as r}from"./shared-X3G6ATT6.js";r();
