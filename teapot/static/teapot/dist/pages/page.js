import{q as r}from"./shared-QABKWOLZ.js";r();
