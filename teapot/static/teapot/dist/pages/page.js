import{p as r}from"./shared-MBBASNYB.js";r();
