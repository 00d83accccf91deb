import{q as r}from"./shared-IEVUJB6G.js";r();
