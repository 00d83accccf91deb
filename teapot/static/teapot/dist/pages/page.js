import{p as r}from"./shared-DGV6MN6F.js";r();
