import{p as r}from"./shared-PEOK3OOX.js";r();
