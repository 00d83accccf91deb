import{q as r}from"./shared-M6N76F3O.js";r();
