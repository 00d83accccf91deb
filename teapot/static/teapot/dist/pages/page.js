import{q as r}from"./shared-CYBZWCM2.js";r();
