import{p as r}from"./shared-FQER32WH.js";r();
